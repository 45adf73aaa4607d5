// What a report is made of, before it becomes a page or a workbook.
#pragma once

#include "show/document.h"

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace panoplon {

/// How the cells of a column are to be read.
enum class CellKind {
    text,
    item,   ///< an item's id: leads to its card
    whole,  ///< a count
    number, ///< with so many decimals
    share,  ///< of 1, shown in percent
    gain,   ///< the same, with its sign
};

struct ReportColumn {
    std::string header;
    CellKind kind = CellKind::text;
    int places = 2;    ///< decimals of a number; of a share or gain, in percent
    std::string about; ///< what it means, in a sentence
};

/// A text, or a number; neither: nothing to say.
struct Cell {
    std::string text;
    std::optional<double> number;
    std::optional<std::uint32_t> colour; ///< of a tier: 0xRRGGBB

    Cell() = default;
    Cell(std::string words) : text(std::move(words)) {}
    Cell(const char* words) : text(words) {}
    Cell(double value) : number(value) {}
    Cell(std::optional<double> value) : number(value) {}
    Cell(std::string words, std::uint32_t tint) : text(std::move(words)), colour(tint) {}
};

struct ReportTable {
    std::string name; ///< unique in the report: letters, digits, `-`
    std::string caption;
    std::vector<ReportColumn> columns;
    std::vector<std::vector<Cell>> rows;
};

/// The cell as people read it: "53 %", "0.47", "+7.8 %"; a dash for nothing.
[[nodiscard]] std::string cell_words(const ReportColumn& column, const Cell& cell);

/// A table of a document's. Columns whose cells are all numbers are numbers; those named `item` are
/// items, and those in `shares` are shares.
[[nodiscard]] ReportTable table_of(const CsvTable& csv, std::string name, std::string caption,
                                   const std::vector<std::string>& shares = {});

struct ReportBlock;

struct Heading {
    std::string text;
};
struct Paragraph {
    std::string text;
    bool quiet = false; ///< a remark
};
/// Sentences, one below the other.
struct Sentences {
    std::vector<std::string> lines;
};
/// Words and what they mean.
struct Terms {
    std::vector<std::pair<std::string, std::string>> rows;
};
struct Picture {
    std::string folder; ///< where its files go, inside of the report's
    Figure figure;
    std::string caption;
    std::string svg; ///< once it is drawn
};
/// What is there for who asks.
struct Fold {
    std::string summary;
    std::vector<ReportBlock> blocks;
};
/// An item that asks for the designer's hand.
struct Call {
    std::string item, name;
    std::string verdict;
    std::string sentence;
    std::vector<std::pair<std::string, std::string>> numbers;
    std::string advice; ///< what to do about it
};
struct Calls {
    std::vector<Call> list;
};
/// An item's sheet.
struct Card {
    std::string item, name, about;
    std::string tier, mark; ///< empty: of no tier
    std::uint32_t colour = 0;
    std::string verdict, sentence; ///< empty: not judged
    std::vector<std::pair<std::string, std::string>> facts;
};

struct ReportBlock {
    std::variant<Heading, Paragraph, Sentences, Terms, ReportTable, Picture, Fold, Calls, Card>
        content;
};

struct Section {
    std::string id; ///< as --only names it
    std::string title;
    std::vector<ReportBlock> blocks;

    template <class Content>
    void add(Content content) {
        blocks.push_back({std::move(content)});
    }
};

struct Report {
    std::string title;
    std::string armoury; ///< its name
    std::string origin;  ///< what made it: version, hash, seed
    bool partial = false;
    std::vector<Section> sections;
};

} // namespace panoplon
