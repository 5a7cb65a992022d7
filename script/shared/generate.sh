# Writes what is generated from the code: the rig schema, the OpenAPI document, the interface's types.
generate() {
	.venv/bin/python -m ruvak.cli.main schema >docs/formats/rig.schema.json
	.venv/bin/python -m script.shared.form_fields >frontend/src/lib/api/form-fields.json
	.venv/bin/python -m ruvak.cli.main openapi >docs/formats/openapi.json
	(cd frontend && npx --no-install openapi-typescript ../docs/formats/openapi.json -o src/lib/api/schema.d.ts >/dev/null)
}
