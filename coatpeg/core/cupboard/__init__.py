"""The rules of the cupboard: who is shown what, where a copy fits, whom giving out reaches, how far a copy has come."""
