// What both kinds of workbooks are read with: the parts of their archive, and cells put in place.
// For workbook.cpp and the readers of each kind.
#pragma once

#include "armoury/workbook.h"

#include <cstddef>
#include <memory>
#include <optional>
#include <pugixml.hpp>
#include <string>
#include <vector>

struct zip;

namespace panoplon {

/// Thrown where a workbook can't be read; caught by read_workbook().
struct UnreadableWorkbook {
    std::string why;
};

/// A zip archive in memory.
class Archive {
  public:
    explicit Archive(const std::string& bytes);

    /// None where there is no such part.
    [[nodiscard]] std::optional<std::string> part(const std::string& path) const;
    /// Its document; empty where there is no such part.
    void load(const std::string& path, pugi::xml_document& into) const;

  private:
    std::unique_ptr<zip, void (*)(zip*)> zip_;
};

/// Fills a sheet cell by cell, within bounds.
class SheetFiller {
  public:
    explicit SheetFiller(WorkbookSheet& sheet) : sheet_(sheet) {}
    void put(std::size_t row, std::size_t column, std::string text);

  private:
    WorkbookSheet& sheet_;
    std::size_t cells_ = 0;
};

/// A number as a spreadsheet shows it.
[[nodiscard]] std::string shown_number(double value, bool as_percentage);

[[nodiscard]] std::vector<WorkbookSheet> read_office_open(const Archive& archive);
[[nodiscard]] std::vector<WorkbookSheet> read_open_document(const Archive& archive);

} // namespace panoplon
