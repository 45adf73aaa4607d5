#include "editor/suggest.h"

#include "base/text.h"
#include "diagnostic/doubt_kinds.h"
#include "formula/formula.h"
#include "judge/audit/verdict.h"
#include "model/gear.h"

#include <algorithm>
#include <fmt/format.h>
#include <map>
#include <set>

namespace panoplon {

namespace {

constexpr char letter = 'x'; ///< that is written to see what it is

/// Whether a key's value is a table, so that a header can name it.
bool is_table_type(Type type) {
    switch (type) {
    case Type::amounts:
    case Type::growths:
    case Type::pool_quantities:
    case Type::pool_formulas:
    case Type::damage_formulas:
    case Type::counts:
    case Type::worn:
    case Type::wanted_items:
    case Type::bearer:
    case Type::table:
    case Type::tables: return true;
    default: return false;
    }
}

/// The path without its last part.
std::string outer_path(const std::string& path) {
    const std::size_t dot = path.rfind('.');
    return dot == std::string::npos ? std::string() : path.substr(0, dot);
}

class Suggester {
  public:
    Suggester(const Edited& edited, const std::vector<Mark>& marks, const Mark& mark)
        : edited_(edited),
          marks_(marks),
          mark_(mark) {}

    std::vector<Suggestion> suggest() {
        switch (mark_.role) {
        case Mark::Role::kind: kinds(); break;
        case Mark::Role::id:
            if (mark_.in_header) ids_of_file();
            break;
        case Mark::Role::key: mark_.in_table ? headers() : keys(); break;
        case Mark::Role::value: values(); break;
        }
        return std::move(list_);
    }

  private:
    void add(Suggestion::What what, const std::string& label, std::string detail = {},
             std::string meaning = {}) {
        if (!seen_.insert(label).second) return;
        const bool quotes = mark_.role == Mark::Role::value && !mark_.in_table && !mark_.quoted &&
                            what != Suggestion::What::variable && label != "true" &&
                            label != "false";
        list_.push_back({what, label, quotes ? fmt::format("\"{}\"", label) : label,
                         std::move(detail), std::move(meaning)});
    }

    void kinds() {
        if (!mark_.in_header) return;
        for (const KindRow& kind : kind_rows())
            add(Suggestion::What::kind, std::string(kind.name),
                kind.single ? "[kind]" : "[kind.ID]", std::string(kind.meaning));
    }

    /// What is defined in this file already: a header may go on with it.
    void ids_of_file() {
        for (const Mark& mark : marks_)
            if (mark.role == Mark::Role::id && mark.kind == mark_.kind && &mark != &mark_)
                add(Suggestion::What::thing, mark.id, name_of(mark.kind, mark.id));
    }

    void key(const KeyRow& row) {
        add(Suggestion::What::key, std::string(last_part(row.path)), type_words(row.type),
            std::string(row.meaning));
    }

    void keys() {
        const std::string parent = outer_path(mark_.path);
        if (const std::string kind = kind_named(mark_); !kind.empty()) {
            ids(kind);
            if (kind != "slot") return;
        }
        for (const KeyRow& row : key_rows()) {
            if (row.kind != mark_.kind || !directly_under(row.path, parent)) continue;
            if (mark_.in_header ? is_table_type(row.type) : !has_key(std::string(row.path)))
                key(row);
        }
    }

    /// Whether the definition has the key already, elsewhere; in a list each place may have it.
    [[nodiscard]] bool has_key(const std::string& path) const {
        const KeyRow* const outer = find_key(mark_.kind, outer_path(path));
        if (outer && outer->type == Type::tables) return false;
        return std::any_of(marks_.begin(), marks_.end(), [&](const Mark& mark) {
            return &mark != &mark_ && mark.role == Mark::Role::key && !mark.in_header &&
                   mark.kind == mark_.kind && mark.id == mark_.id && mark.path == path;
        });
    }

    /// Keys that a cell can hold, and stats by themselves.
    void headers() {
        std::set<std::string> present;
        for (const Mark& mark : marks_)
            if (mark.in_header && &mark != &mark_) present.insert(mark.path);
        const bool gives = find_key(mark_.kind, "add") != nullptr;
        for (const std::string& stat : edited_.ids.all("stat"))
            if (gives && !present.contains("add." + stat))
                add(Suggestion::What::thing, stat, "add." + stat, name_of("stat", stat));
        for (const KeyRow& row : key_rows()) {
            if (row.kind != mark_.kind) continue;
            const std::string path(row.path);
            if (!present.contains(path) && !is_table_type(row.type))
                add(Suggestion::What::key, with_places(mark_.kind, path), type_words(row.type),
                    std::string(row.meaning));
        }
    }

    void ids(const std::string& kind) {
        for (const std::string& id : edited_.ids.all(kind))
            add(Suggestion::What::thing, id, name_of(kind, id));
    }

    void values() {
        if (holds_formula(mark_)) return formula();
        if (const std::string kind = kind_named(mark_); !kind.empty()) ids(kind);
        const KeyRow* const row = row_of(mark_);
        if (!row) return;
        switch (row->type) {
        case Type::choice:
            for (const std::string& choice : split(row->names, '|'))
                add(Suggestion::What::word, choice, std::string(row->path));
            return;
        case Type::truth:
            for (const char* word : {"true", "false"}) add(Suggestion::What::word, word);
            return;
        case Type::timed: return add(Suggestion::What::word, "always");
        case Type::unlimited_whole: return add(Suggestion::What::word, "unlimited");
        case Type::targets:
            for (const char* word : {"front", "all"}) add(Suggestion::What::word, word);
            return;
        case Type::id_name: return words_in_use(*row);
        case Type::texts: return words(*row);
        default: return;
        }
    }

    /// Words of a list of texts: those that the key knows, and those that are in use.
    void words(const KeyRow& row) {
        if (row.names == "doubt")
            for (const DoubtRow& doubt : doubt_rows())
                add(Suggestion::What::word, std::string(doubt.name), "doubt",
                    std::string(doubt.meaning));
        if (row.path == "accept")
            for (const VerdictRow& verdict : verdict_rows())
                add(Suggestion::What::word, verdict.name, "verdict", verdict.meaning);
        if (row.names == "thing to stop")
            for (const char* word : {"actions", "uses"}) add(Suggestion::What::word, word);
        if (row.names == "effect or tag")
            add(Suggestion::What::word, hostile_word, "", "all that the other side applied");
        words_in_use(row);
    }

    /// What other definitions of the armoury say under this key, or under the one that its words
    /// come from.
    void words_in_use(const KeyRow& row) {
        const auto say = [&](std::string_view kind, std::string_view key) {
            for (const RawDefinition& definition : edited_.read.definitions)
                if (definition.kind == kind)
                    if (const Node* value = find_path(definition.body, key)) add_texts(*value);
        };
        if (row.names == "calling") return say("character", "calling");
        if (row.names == "tag") return say("item", "tags");
        if (row.names == "effect or tag") return say("effect", "tags");
        if (row.names == "affix or tag") return say("affix", "tags");
        if (row.names.empty()) say(row.kind, row.path);
    }

    static const Node* find_path(const Node& body, std::string_view path) {
        const Node* node = &body;
        for (const std::string& part : split(path, '.'))
            if (node) node = node->find(part);
        return node;
    }

    void add_texts(const Node& value) {
        if (value.kind == Node::Kind::text) add(Suggestion::What::word, value.text, "in use");
        for (const Node& item : value.items) add_texts(item);
    }

    /// Names that a formula may use, and functions.
    void formula() {
        if (!mark_.in_table && !mark_.quoted) return; // it is a number there
        const auto& ids = edited_.ids;
        const Scope scope{ids.all("stat"), ids.all("pool"), ids.all("effect")};
        for (const std::string& name : scope.names()) add(Suggestion::What::variable, name);
        for (const std::string& name : function_names())
            add(Suggestion::What::variable, name, "function");
    }

    [[nodiscard]] std::string name_of(const std::string& kind, const std::string& id) {
        if (names_.empty())
            for (const RawDefinition& definition : edited_.read.definitions)
                if (const Node* name = definition.body.find("name"))
                    names_[{definition.kind, definition.id}] = name->text;
        const auto found = names_.find({kind, id});
        return found == names_.end() ? std::string() : found->second;
    }

    const Edited& edited_;
    const std::vector<Mark>& marks_;
    const Mark& mark_;
    std::set<std::string> seen_;
    std::map<Thing, std::string> names_; ///< that things have; empty until they are asked for
    std::vector<Suggestion> list_;
};

/// The part of a formula that is one name, around a place.
TextRange name_around(const std::string& text, TextRange whole, std::size_t place) {
    std::size_t from = place;
    while (from > whole.offset && is_of_name(text[from - 1])) --from;
    std::size_t to = place;
    while (to < whole.offset + whole.length && is_of_name(text[to])) ++to;
    return {whole.file, from, to - from};
}

} // namespace

Suggestions suggestions_at(const Edited& edited, std::int32_t file, std::size_t place) {
    // As it would be with the letter; of the other files only their places are wanted.
    Sources written;
    for (std::size_t i = 0; i < edited.read.sources.files().size(); ++i) {
        const Sources::File& in = edited.read.sources.files()[i];
        std::string text;
        if (static_cast<std::int32_t>(i) == file) {
            place = std::min(place, in.text.size());
            text = in.text.substr(0, place) + letter + in.text.substr(place);
        }
        written.add(in.path, std::move(text), in.was);
    }
    const std::vector<Mark> marks = marks_of(written, file, edited.headers);
    const Mark* mark = nullptr;
    for (const Mark& one : marks)
        if (one.range.offset <= place && place < one.range.offset + one.range.length) mark = &one;
    if (!mark) return {{file, place, 0}, {}};
    TextRange range = mark->range;
    if (holds_formula(*mark)) range = name_around(written.file(file).text, range, place);
    Suggestions found{range, Suggester(edited, marks, *mark).suggest()};
    --found.range.length; // without the letter
    return found;
}

} // namespace panoplon
