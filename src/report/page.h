// A report as one HTML page that needs nothing beside itself.
#pragma once

#include "base/embedded.h"
#include "report/report.h"

#include <span>
#include <string>

namespace panoplon {

/// The page. Its pictures are drawn (Picture::svg); text from the armoury is escaped.
[[nodiscard]] std::string page_text(const Report& report);

/// A figure's SVG as a page can hold it: sized by the page, its ids its own (they begin with
/// `prefix`), with a title, and with what the figure says of each thing drawn as theirs. Empty
/// where it is no SVG.
[[nodiscard]] std::string svg_for_page(const std::string& svg, const Figure& figure,
                                       const std::string& prefix);

/// The page's template, blocks, style and script.
[[nodiscard]] std::span<const EmbeddedFile> page_parts();

} // namespace panoplon
