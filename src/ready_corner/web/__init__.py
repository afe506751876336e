"""HTTP: one router a stage, one error format, the built front end."""
