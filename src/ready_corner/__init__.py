"""Ready Corner: the measuring plan, the arithmetic, the judgement and the record of a car chassis."""
