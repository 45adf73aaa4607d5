// A new id for a thing, wherever it is named.
#pragma once

#include "editor/edited.h"

namespace panoplon {

/// Text of a file that gives way to another.
struct TextEdit {
    TextRange range;
    std::string text;
};

/// Every edit that gives a thing another id: in its definition, in headers of tables, in lists and
/// in formulas; nothing else moves. That it is right is seen by doing it: the armoury that would
/// come of it is read, and has to have no mistake more and every reference that it had. Refused
/// (Cause::refused) with the reason where it would not, where the id is none or is taken, and where
/// the thing is named in a workbook, or has its id from its name.
[[nodiscard]] Result<std::vector<TextEdit>> rename(const Edited& edited, const Thing& thing,
                                                   const std::string& id);

/// The texts of an armoury after edits, by file.
[[nodiscard]] Sources with_edits(const Sources& sources, const std::vector<TextEdit>& edits);

} // namespace panoplon
