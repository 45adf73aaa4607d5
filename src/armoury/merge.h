// Definitions that are made from others: items from their patterns, and what-ifs laid over files.
#pragma once

#include "armoury/files.h"
#include "armoury/names.h"

#include <string>
#include <vector>

namespace panoplon {

/// Gives each pattern and item the keys of what it is `like`, to any depth: what it has itself
/// stays, tables are merged key by key. Each key that came so says from which pattern. A cycle of
/// patterns is a mistake that shows it. The definitions have been checked.
void apply_patterns(std::vector<RawDefinition>& definitions, Sink& sink);

/// Reads `KEY=VALUE` (`item.reed_coat.add.guard=20`; a place in a list by its number from 1, as in
/// `carry.band.2.from=0.9`; nothing after the `=` takes the key away) as a source of its own and
/// lays it over the definitions. What it names must be there.
void apply_what_if(const std::string& text, Sources& sources, RawArmoury& raw,
                   const std::vector<std::string>& stats, Sink& sink);

} // namespace panoplon
