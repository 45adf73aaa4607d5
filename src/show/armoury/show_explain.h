// Explanations of words, and of things of an armoury.
#pragma once

#include "armoury/read.h"
#include "show/armoury/handbook.h"
#include "show/document.h"

#include <optional>
#include <string>

namespace panoplon {

/// What can be explained.
[[nodiscard]] Document show_explainable(const Handbook& handbook);
[[nodiscard]] Document show_explanations(const std::vector<Explanation>& list);

/// The definition that `item.reed_coat`, or a bare id that one kind alone has, names; several
/// kinds, or none: null.
[[nodiscard]] std::vector<const RawDefinition*> find_things(const ReadArmoury& read,
                                                            const std::string& name);
/// A definition: which of its keys count, which don't and why; who names it; what it can do and
/// what it can't, and why not.
[[nodiscard]] Document show_thing(const ReadArmoury& read, const RawDefinition& definition);

} // namespace panoplon
