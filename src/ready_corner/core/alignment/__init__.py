"""String, gauge, sweep and floor readings to camber, caster and toe."""
