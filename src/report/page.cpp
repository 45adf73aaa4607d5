#include "report/page.h"

#include "base/text.h"

#include <fmt/format.h>
#include <kainjow/mustache.hpp>

namespace panoplon {

namespace {

using Data = kainjow::mustache::data;
using List = kainjow::mustache::list;

std::string part(std::string_view name) {
    for (const EmbeddedFile& file : page_parts())
        if (file.path == name) return std::string(file.text);
    return {};
}

std::string card_anchor(const std::string& item) {
    return "item-" + item;
}

List pairs(const std::vector<std::pair<std::string, std::string>>& rows) {
    List list;
    for (const auto& [label, words] : rows) {
        Data row;
        row.set("label", printable(label));
        row.set("words", printable(words));
        list.push_back(std::move(row));
    }
    return list;
}

/// Blocks as the template sees them: each an object with one name, that of its kind.
class BlockData {
  public:
    /// `has_cards`: items can lead to their cards.
    explicit BlockData(bool has_cards) : has_cards_(has_cards) {}

    List list(const std::vector<ReportBlock>& blocks) const {
        List data;
        for (const ReportBlock& block : blocks)
            data.push_back(
                std::visit([this](const auto& content) { return make(content); }, block.content));
        return data;
    }

  private:
    /// Every other kind is said not to be there: a name that is missing would be looked for in the
    /// fold around it.
    static Data named(const char* kind, Data content) {
        Data data;
        for (const char* other : {"heading", "paragraph", "sentences", "terms", "table", "picture",
                                  "fold", "calls", "card"})
            data.set(other, false);
        data.set(kind, std::move(content));
        return data;
    }

    Data make(const Heading& heading) const {
        return named("heading", Data("text", printable(heading.text)));
    }

    Data make(const Paragraph& paragraph) const {
        Data data("text", printable(paragraph.text));
        if (paragraph.quiet) data.set("quiet", true);
        return named("paragraph", std::move(data));
    }

    Data make(const Sentences& sentences) const {
        List lines;
        for (const std::string& line : sentences.lines)
            lines.push_back(Data("text", printable(line)));
        return named("sentences", Data("lines", std::move(lines)));
    }

    Data make(const Terms& terms) const { return named("terms", Data("rows", pairs(terms.rows))); }

    Data make(const Picture& picture) const {
        Data data("svg", picture.svg);
        data.set("drawn", !picture.svg.empty());
        data.set("caption", printable(picture.caption));
        data.set("files", fmt::format("figures/{}/{}", picture.folder, picture.figure.name));
        return named("picture", std::move(data));
    }

    Data make(const Fold& fold) const {
        Data data("summary", printable(fold.summary));
        data.set("blocks", list(fold.blocks));
        return named("fold", std::move(data));
    }

    void link(Data& data, const std::string& item) const {
        if (has_cards_) data.set("anchor", card_anchor(item));
    }

    Data make(const Calls& calls) const {
        List entries;
        for (const Call& call : calls.list) {
            Data entry("name", printable(call.name));
            entry.set("item", call.item);
            entry.set("verdict", call.verdict);
            entry.set("kind", call.verdict.substr(0, call.verdict.find(',')));
            entry.set("sentence", printable(call.sentence));
            entry.set("numbers", pairs(call.numbers));
            entry.set("has_numbers", !call.numbers.empty());
            entry.set("advice", printable(call.advice));
            link(entry, call.item);
            entries.push_back(std::move(entry));
        }
        return named("calls", Data("list", std::move(entries)));
    }

    static void put_ink(Data& data, const Ink& ink) {
        data.set("colour", colour_text(ink.colour));
        if (ink.ground) data.set("ground", colour_text(*ink.ground));
    }

    Data make(const Card& card) const {
        Data data("name", printable(card.name));
        data.set("item", card.item);
        data.set("anchor", card_anchor(card.item));
        if (!card.about.empty()) data.set("about", printable(card.about));
        if (!card.tier.empty()) {
            data.set("tier", printable(card.tier));
            data.set("mark", printable(card.mark));
            put_ink(data, card.ink);
        }
        if (!card.verdict.empty()) {
            data.set("verdict", card.verdict);
            data.set("kind", card.verdict.substr(0, card.verdict.find(',')));
            data.set("sentence", printable(card.sentence));
        }
        data.set("facts", pairs(card.facts));
        return named("card", std::move(data));
    }

    Data cell_data(const Column& column, const Cell& cell) const {
        const std::string words = printable(words_of(column, cell, "—"));
        Data data("words", words.empty() ? "—" : words);
        if (!cell.meaning().empty()) data.set("meaning", printable(cell.meaning()));
        if (cell.ink()) put_ink(data, *cell.ink());
        if (!is_words(column.kind)) {
            const auto number = cell.number();
            data.set("number", true);
            data.set("value", number ? shortest(*number) : "");
        } else if (column.kind == CellKind::item && !words.empty()) {
            link(data, words);
        }
        return data;
    }

    Data make(const Table& table) const {
        Data data("name", table.name);
        data.set("caption", printable(table.caption));
        List headers;
        for (const Column& column : table.columns) {
            Data header("text", printable(column.header));
            if (!column.about.empty()) header.set("about", printable(column.about));
            if (!is_words(column.kind)) header.set("number", true);
            headers.push_back(std::move(header));
        }
        data.set("headers", std::move(headers));
        std::vector<std::pair<std::string, std::string>> key;
        for (const Column& column : table.columns)
            if (!column.about.empty()) key.emplace_back(column.header, column.about);
        data.set("has_key", !key.empty());
        data.set("key", pairs(key));
        List rows;
        for (const auto& row : table.rows) {
            List cells;
            for (std::size_t i = 0; i < row.size(); ++i)
                cells.push_back(cell_data(table.columns[i], row[i]));
            rows.push_back(Data("cells", std::move(cells)));
        }
        data.set("rows", std::move(rows));
        return named("table", std::move(data));
    }

    bool has_cards_;
};

bool has_section(const Report& report, std::string_view id) {
    for (const Section& section : report.sections)
        if (section.id == id) return true;
    return false;
}

} // namespace

std::string page_text(const Report& report) {
    const BlockData blocks(has_section(report, "items"));
    Data data("title", printable(report.title));
    data.set("armoury", printable(report.armoury));
    data.set("origin", printable(report.origin));
    if (report.partial) data.set("partial", true);
    data.set("style", part("page.css"));
    data.set("script", part("page.js"));
    const std::string block_template = part("blocks.mustache");
    data.set("blocks_of", Data(kainjow::mustache::partial([&] { return block_template; })));
    List sections;
    for (const Section& section : report.sections) {
        Data entry("id", section.id);
        entry.set("title", printable(section.title));
        entry.set("blocks", blocks.list(section.blocks));
        sections.push_back(std::move(entry));
    }
    data.set("sections", std::move(sections));
    kainjow::mustache::mustache page(part("page.mustache"));
    return page.render(data);
}

} // namespace panoplon
