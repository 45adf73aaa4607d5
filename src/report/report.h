// What a report is made of, before it becomes a page or a workbook. Its tables have headers for
// people, a caption, and a name that is unique in the report (letters, digits, `-`).
#pragma once

#include "show/document.h"

#include <optional>
#include <string>
#include <utility>
#include <variant>
#include <vector>

namespace panoplon {

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
    Ink ink;
    std::string verdict, sentence; ///< empty: not judged
    std::vector<std::pair<std::string, std::string>> facts;
};

struct ReportBlock {
    std::variant<Heading, Paragraph, Sentences, Terms, Table, Picture, Fold, Calls, Card> content;
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
