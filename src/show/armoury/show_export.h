// The armoury resolved, in open formats: JSON with its schema, CSV tables, TOML, tables for SQL.
#pragma once

#include "armoury/read.h"
#include "show/document.h"

namespace panoplon {

/// Every definition by kind and id, with what came from patterns and with the defaults of absent
/// keys: { kind: { id: { key: value } } }, and { kind: { key: value } } for a kind of which there
/// is one.
[[nodiscard]] Json resolved_json(const ReadArmoury& read);

/// A JSON Schema (draft 2020-12) of the format, from the table of keys. It holds for what
/// resolved_json gives, and for an armoury's TOML in an editor.
[[nodiscard]] Json format_schema();

/// A table for each kind: `id`, then a column for every key that any of its definitions has, as
/// `add.guard` for what nests; lists as JSON.
[[nodiscard]] std::vector<Table> kind_tables(const Json& resolved);

/// Files: armoury.json, armoury.schema.json, as-csv/ and as-toml/, each of which is an armoury.
[[nodiscard]] Document show_export(const ReadArmoury& read);

} // namespace panoplon
