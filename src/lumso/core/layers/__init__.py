"""Layers on a surface: the stack and what lies beneath, how much a coat takes, how it dries."""
