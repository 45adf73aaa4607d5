#include "armoury/bounds.h"
#include "armoury/deep_keys.h"
#include "armoury/files.h"
#include "armoury/keys.h"

#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <toml++/toml.h>

namespace panoplon {

namespace {

class TomlReader {
  public:
    TomlReader(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink)
        : sources_(sources),
          file_(file),
          into_(into),
          sink_(sink) {}

    void read() {
        const Sources::File& in = sources_.file(file_);
        if (const auto deep = find_deep_key(in.text)) {
            into_.cut_short = true;
            sink_.mistake(sources_.at(file_, *deep),
                          fmt::format("a key of more than {} parts", deepest_key),
                          "the rest of this file was not read");
            return;
        }
        Node root;
        try {
            root = node_of(toml::parse(in.text, in.path));
        } catch (const toml::parse_error& error) {
            into_.cut_short = true;
            const Span at = span_of(error.source());
            sink_.mistake(at, std::string(error.description()),
                          stands_at_line_end(at)
                              ? "a text ends on its line: is its closing quote missing? The rest "
                                "of this file was not read"
                              : "the rest of this file was not read");
            return;
        }
        for (const Entry& entry : root.entries) read_kind(entry);
    }

  private:
    [[nodiscard]] bool stands_at_line_end(const Span& at) const {
        return static_cast<std::size_t>(at.column) > characters(sources_.line(at));
    }

    Span span_of(const toml::source_region& region, std::int32_t length = 1) const {
        return {file_, static_cast<std::int32_t>(region.begin.line),
                static_cast<std::int32_t>(region.begin.column), length};
    }

    /// The value's length on its line, for the underline.
    std::int32_t length_of(const toml::source_region& region) const {
        if (region.end.line != region.begin.line || region.end.column <= region.begin.column)
            return 1;
        return static_cast<std::int32_t>(region.end.column - region.begin.column);
    }

    Node node_of(const toml::node& value) const {
        Node node;
        node.span = span_of(value.source(), length_of(value.source()));
        if (const auto* table = value.as_table()) {
            node.kind = Node::Kind::table;
            for (const auto& [key, child] : *table) {
                const Span at =
                    span_of(key.source(), static_cast<std::int32_t>(characters(key.str())));
                node.entries.push_back({std::string(key.str()), at, node_of(child), {}});
            }
            std::stable_sort(
                node.entries.begin(), node.entries.end(),
                [](const Entry& a, const Entry& b) { return a.key_span < b.key_span; });
        } else if (const auto* list = value.as_array()) {
            node.kind = Node::Kind::list;
            for (const auto& child : *list) node.items.push_back(node_of(child));
        } else if (const auto text = value.value_exact<std::string>()) {
            node.kind = Node::Kind::text;
            node.text = *text;
        } else if (const auto truth = value.value_exact<bool>()) {
            node.kind = Node::Kind::truth;
            node.truth = *truth;
        } else if (const auto number = value.value<double>(); number && value.is_number()) {
            node.kind = Node::Kind::number;
            node.number = *number;
        } else if (const auto whole = value.value<std::int64_t>(); whole && value.is_number()) {
            node.kind = Node::Kind::number;
            node.number = static_cast<double>(*whole);
        } else {
            node.kind = Node::Kind::date;
        }
        return node;
    }

    void read_kind(const Entry& entry) {
        const KindRow* kind = find_kind(entry.key);
        if (!kind && entry.value.kind != Node::Kind::table) {
            sink_.mistake(entry.key_span,
                          fmt::format("'{}' stands outside of every table", entry.key),
                          "write [KIND.ID] on a line above it, as in [item.reed_coat]");
            return;
        }
        if (!kind) {
            const auto near = nearest_name(entry.key, kind_names());
            sink_.mistake(entry.key_span,
                          fmt::format("unknown kind '{}'{}", entry.key,
                                      near ? fmt::format("; did you mean '{}'?", *near) : ""),
                          near ? "" : "kinds: " + join(kind_names(), ", "));
            into_.cut_short = true;
            return;
        }
        if (entry.value.kind != Node::Kind::table) {
            sink_.mistake(entry.key_span,
                          fmt::format("'{}' stands outside of every table", entry.key),
                          kind->single ? fmt::format("write [{}]", entry.key)
                                       : fmt::format("write [{}.ID]", entry.key));
            return;
        }
        if (kind->single) {
            into_.definitions.push_back({entry.key, {}, entry.key_span, entry.value});
            return;
        }
        for (const Entry& definition : entry.value.entries) read_definition(entry.key, definition);
    }

    void read_definition(const std::string& kind, const Entry& definition) {
        if (!is_id(definition.key)) {
            sink_.mistake(definition.key_span, fmt::format("'{}' is not an id", definition.key),
                          id_words);
        } else if (definition.value.kind != Node::Kind::table) {
            sink_.mistake(definition.key_span,
                          fmt::format("'{}' stands in [{}], where only definitions stand",
                                      definition.key, kind),
                          fmt::format("write [{}.ID] and the keys under it", kind));
        } else {
            into_.definitions.push_back(
                {kind, definition.key, definition.key_span, definition.value});
        }
    }

    const Sources& sources_;
    std::int32_t file_;
    RawArmoury& into_;
    Sink& sink_;
};

} // namespace

void read_toml(const Sources& sources, std::int32_t file, RawArmoury& into, Sink& sink) {
    TomlReader(sources, file, into, sink).read();
}

} // namespace panoplon
