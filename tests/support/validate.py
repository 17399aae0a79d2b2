"""Validates level files by a JSON schema: validate.py SCHEMA LEVEL... Prints what the first fault of each is."""

import json
import sys
import tomllib

from jsonschema import Draft7Validator

with open(sys.argv[1], encoding="utf-8") as file:
    schema = json.load(file)
Draft7Validator.check_schema(schema)
validator = Draft7Validator(schema)
for name in sys.argv[2:]:
    with open(name, "rb") as file:
        level = tomllib.load(file)
    fault = next(validator.iter_errors(level), None)
    print("valid" if fault is None else "invalid: " + "/".join(map(str, fault.absolute_path)))
