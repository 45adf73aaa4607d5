#include "armoury/merge.h"

#include "armoury/bounds.h"
#include "armoury/keys.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <unordered_map>
#include <unordered_set>

namespace panoplon {

namespace {

/// Keys that tell of the pattern itself.
bool stays_with_pattern(const std::string& key) {
    return key == "like" || std::any_of(common_rows().begin(), common_rows().end(),
                                        [&](const KeyRow& row) { return row.path == key; });
}

Entry* find_entry(Node& table, const std::string& key) {
    for (Entry& entry : table.entries)
        if (entry.key == key) return &entry;
    return nullptr;
}

void mark(Entry& entry, const std::string& from) {
    if (entry.from.empty()) entry.from = from;
    for (Entry& inner : entry.value.entries) mark(inner, from);
}

/// What `from` has and `into` has not; also what was taken out for a mistake, so that it is not
/// missed once more.
void add_missing(Node& into, const Node& from, const std::string& pattern, bool top) {
    for (const Entry& entry : from.entries) {
        if (top && stays_with_pattern(entry.key)) continue;
        Entry* own = find_entry(into, entry.key);
        if (!own) {
            into.entries.push_back(entry);
            mark(into.entries.back(), pattern);
        } else if (own->value.kind == Node::Kind::table && entry.value.kind == Node::Kind::table) {
            add_missing(own->value, entry.value, pattern, false);
        }
    }
}

/// Depth-first over what patterns are like.
class Patterns {
  public:
    Patterns(std::vector<RawDefinition>& definitions, Sink& sink)
        : definitions_(definitions),
          sink_(sink) {
        for (std::size_t i = 0; i < definitions.size(); ++i)
            if (definitions[i].kind == "pattern") patterns_.emplace(definitions[i].id, i);
    }

    void run() {
        for (RawDefinition& definition : definitions_)
            if (definition.kind == "pattern" || definition.kind == "item") complete(definition);
    }

  private:
    void complete(RawDefinition& definition) {
        const Node* like = definition.body.find("like");
        if (!like || !like->given()) return;
        if (definition.kind == "pattern") {
            if (done_.contains(definition.id)) return;
            if (std::find(path_.begin(), path_.end(), definition.id) != path_.end())
                return report_cycle(definition, *like);
            if (path_.size() == longest_chain) return report_depth(definition, *like);
            path_.push_back(definition.id);
        }
        const auto at = patterns_.find(like->text);
        if (at != patterns_.end()) {
            RawDefinition& pattern = definitions_[at->second];
            complete(pattern);
            add_missing(definition.body, pattern.body, pattern.id, true);
            if (definition.kind == "pattern") {
                const std::size_t depth = depth_[definition.id] = depth_[pattern.id] + 1;
                if (depth == longest_chain) report_depth(definition, *like);
            }
        }
        if (definition.kind == "pattern") {
            path_.pop_back();
            done_.insert(definition.id);
        }
    }

    void report_depth(const RawDefinition& definition, const Node& like) {
        sink_.mistake(like.span,
                      fmt::format("the pattern '{}' is like one that is like others, more than {} "
                                  "deep",
                                  definition.id, longest_chain));
    }

    void report_cycle(const RawDefinition& definition, const Node& like) {
        const auto from = std::find(path_.begin(), path_.end(), definition.id);
        std::vector<std::string> names(from, path_.end());
        names.push_back(definition.id);
        sink_.mistake(like.span, fmt::format("a cycle of patterns: {}", join(names, " is like ")),
                      "a pattern can't be like itself");
    }

    std::vector<RawDefinition>& definitions_;
    Sink& sink_;
    std::unordered_map<std::string, std::size_t> patterns_;
    std::vector<std::string> path_;
    std::unordered_set<std::string> done_;
    std::unordered_map<std::string, std::size_t>
        depth_; ///< patterns that one is like, one by another
};

bool is_number(const std::string& text) {
    return !text.empty() && text.find_first_not_of("0123456789") == std::string::npos;
}

/// Lays changes over a table or a list of tables.
class Overlay {
  public:
    explicit Overlay(Sink& sink) : sink_(sink) {}

    void onto(Node& table, const Node& changes) {
        for (const Entry& change : changes.entries) {
            if (table.kind == Node::Kind::list)
                in_list(table, change);
            else if (table.kind == Node::Kind::table)
                in_table(table, change);
            else
                sink_.mistake(change.key_span,
                              fmt::format("what stands there is a value: nothing of it is called "
                                          "'{}'",
                                          change.key));
        }
    }

  private:
    void in_table(Node& table, const Entry& change) {
        Entry* own = find_entry(table, change.key);
        const bool inside = own && change.value.kind == Node::Kind::table &&
                            (own->value.kind == Node::Kind::table ||
                             (own->value.kind == Node::Kind::list && places(change.value)));
        if (inside)
            onto(own->value, change.value);
        else if (!change.value.given())
            std::erase_if(table.entries, [&](const Entry& e) { return e.key == change.key; });
        else if (own)
            *own = change;
        else
            table.entries.push_back(change);
    }

    void in_list(Node& list, const Entry& change) {
        if (!is_number(change.key)) {
            sink_.mistake(change.key_span, fmt::format("'{}' is no place in a list", change.key),
                          "places are numbers from 1");
            return;
        }
        const std::size_t place =
            std::min<std::size_t>(std::stoul(change.key.substr(0, 9)), 1000000);
        if (place < 1 || place > list.items.size()) {
            sink_.mistake(change.key_span, fmt::format("there is no place {} in a list of {}",
                                                       change.key, list.items.size()));
        } else if (!change.value.given()) {
            list.items.erase(list.items.begin() + static_cast<std::ptrdiff_t>(place - 1));
        } else if (change.value.kind == Node::Kind::table) {
            onto(list.items[place - 1], change.value);
        } else {
            list.items[place - 1] = change.value;
        }
    }

    static bool places(const Node& changes) {
        return std::all_of(changes.entries.begin(), changes.entries.end(),
                           [](const Entry& entry) { return is_number(entry.key); });
    }

    Sink& sink_;
};

void nothing_at_the_end(Node& node) {
    if (node.kind == Node::Kind::table && node.entries.size() == 1)
        nothing_at_the_end(node.entries.front().value);
    else
        node.kind = Node::Kind::nothing;
}

/// The text as TOML: a value that is no TOML value is taken as a text.
std::string as_toml(const std::string& key, const std::string& value) {
    const auto parses = [](const std::string& text) {
        Sources one;
        const std::int32_t index = one.add("--set", text);
        Sink ignored;
        RawArmoury raw;
        read_toml(one, index, raw, ignored);
        return !raw.cut_short;
    };
    std::string plain = key + "=" + value;
    if (!value.empty() && parses(plain)) return plain;
    std::string quoted = key + "=\"";
    for (const char c : value) {
        if (c == '"' || c == '\\') quoted += '\\';
        quoted += c;
    }
    return quoted + "\"";
}

void unknown_definition(const RawDefinition& change, const RawArmoury& raw, Sink& sink) {
    std::vector<std::string> known;
    for (const RawDefinition& definition : raw.definitions)
        if (definition.kind == change.kind) known.push_back(definition.id);
    const auto near = nearest_name(change.id, known);
    sink.mistake(change.span,
                 fmt::format("unknown {} '{}'{}", change.kind, change.id,
                             near ? fmt::format("; did you mean '{}'?", *near) : ""),
                 "a what-if changes what is there; new things are written into files");
}

/// Whether a what-if begins with the id of something, where its kind should stand.
bool lacks_kind(const std::string& key, const Span& whole, const RawArmoury& raw, Sink& sink) {
    const std::string first = key.substr(0, key.find('.'));
    if (find_kind(first)) return false;
    const auto meant =
        std::find_if(raw.definitions.begin(), raw.definitions.end(),
                     [&](const RawDefinition& definition) { return definition.id == first; });
    if (meant == raw.definitions.end()) return false;
    sink.mistake(whole,
                 fmt::format("'{}' is no kind; did you mean '{}.{}'?", first, meant->kind, key));
    return true;
}

/// A bare stat after the id of a thing with modifiers means `add.STAT`, as in a table's header.
void understand_stats(RawDefinition& change, const std::vector<std::string>& stats) {
    for (Entry& entry : change.body.entries) {
        const bool stat = std::find(stats.begin(), stats.end(), entry.key) != stats.end();
        if (!stat || find_key(change.kind, entry.key) || !find_key(change.kind, "add")) continue;
        Node add;
        add.kind = Node::Kind::table;
        add.span = entry.key_span;
        const Span span = entry.key_span;
        add.entries.push_back(std::move(entry));
        entry = {"add", span, std::move(add), {}};
    }
}

} // namespace

void apply_patterns(std::vector<RawDefinition>& definitions, Sink& sink) {
    Patterns(definitions, sink).run();
}

void apply_what_if(const std::string& text, Sources& sources, RawArmoury& raw,
                   const std::vector<std::string>& stats, Sink& sink) {
    const std::size_t equals = text.find('=');
    const std::string key(trim(text.substr(0, equals)));
    if (equals == std::string::npos || key.empty() || text.find('\n') != std::string::npos) {
        const Span whole{sources.add("--set", text), 1, 1,
                         static_cast<std::int32_t>(characters(text))};
        sink.mistake(whole, fmt::format("'{}' is no what-if", text),
                     "as in --set item.reed_coat.add.guard=20");
        return;
    }
    const std::string value(trim(text.substr(equals + 1)));
    const std::int32_t file = sources.add("--set", as_toml(key, value));
    if (lacks_kind(key, {file, 1, 1, static_cast<std::int32_t>(characters(key))}, raw, sink))
        return;
    RawArmoury changes;
    read_toml(sources, file, changes, sink);
    for (RawDefinition& change : changes.definitions) {
        if (value.empty()) nothing_at_the_end(change.body);
        understand_stats(change, stats);
        const auto at = std::find_if(
            raw.definitions.begin(), raw.definitions.end(), [&](const RawDefinition& definition) {
                return definition.kind == change.kind && definition.id == change.id;
            });
        if (at == raw.definitions.end())
            unknown_definition(change, raw, sink);
        else if (change.body.given())
            Overlay(sink).onto(at->body, change.body);
    }
}

} // namespace panoplon
