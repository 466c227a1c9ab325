"""Published formulas, one function each: units in brackets, arrays in and out, the reference beneath."""
