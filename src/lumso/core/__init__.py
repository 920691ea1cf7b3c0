"""The rules of the job: values in, values out. No files, no web, no SQL, no clock.

Inside the core, volumes are millilitres, weights grams, lengths millimetres, areas square metres, times
minutes, temperatures °C and relative humidity 0–1. Text is read and written at the edges only.
"""
