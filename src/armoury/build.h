// Builds the model from checked records, one kind at a time.
#pragma once

#include "armoury/record.h"

namespace panoplon {

/// Builds one checked definition into its place in the armoury. Lists have room for every name
/// already, so that ids can be resolved in any order.
void build_definition(Building& building, const RawDefinition& definition);

/// Finds which effects the words of removing and of immunity mean, once all are built.
void find_effect_groups(Armoury& armoury);
/// Which end of what is rolled is the worse, and in which steps, by its stat.
void find_worse_rolls(Armoury& armoury);
/// Which items some action spends.
void find_what_is_spent(Armoury& armoury);

/// Gives every list of the armoury as many places as there are names.
void make_room(Building& building);

} // namespace panoplon
