// Builds the model from checked records, one kind at a time.
#pragma once

#include "armoury/record.h"

namespace panoplon {

/// Builds one checked definition into its place in the armoury. Lists have room for every name
/// already, so that ids can be resolved in any order.
void build_definition(Building& building, const RawDefinition& definition);

/// Gives every list of the armoury as many places as there are names.
void make_room(Building& building);

} // namespace panoplon
