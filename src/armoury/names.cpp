#include "armoury/names.h"

#include "diagnostic/doubt_kinds.h"
#include "model/gear.h"

namespace panoplon {

int Names::find(std::string_view kind, const std::string& id) const {
    const auto in = kinds_.find(kind);
    if (in == kinds_.end()) return -1;
    const auto at = in->second.index.find(id);
    return at == in->second.index.end() ? -1 : at->second;
}

const std::vector<std::string>& Names::all(std::string_view kind) const {
    static const std::vector<std::string> none;
    const auto in = kinds_.find(kind);
    return in == kinds_.end() ? none : in->second.ids;
}

bool Names::add(const std::string& kind, const std::string& id) {
    Kind& in = kinds_[kind];
    const auto [at, fresh] = in.index.emplace(id, static_cast<int>(in.ids.size()));
    if (fresh) in.ids.push_back(id);
    return fresh;
}

namespace {

void add_texts(const Node& value, const std::string& word, Names& names) {
    if (value.kind == Node::Kind::text) names.add(word, value.text);
    for (const Node& item : value.items) add_texts(item, word, names);
}

/// Where words come from.
struct WordSource {
    std::string_view kind, key;
    const char* word;
};
constexpr WordSource word_sources[] = {
    {"character", "calling", "calling"}, {"item", "tags", "tag"},
    {"pattern", "tags", "tag"},          {"effect", "tags", "effect or tag"},
    {"affix", "tags", "affix or tag"},
};

} // namespace

void add_words(const std::vector<RawDefinition>& definitions, Names& names) {
    for (const std::string& doubt : doubt_names()) names.add("doubt", doubt);
    for (const char* word : {"actions", "uses"}) names.add("thing to stop", word);
    names.add("effect or tag", hostile_word);
    for (const std::string& effect : names.all("effect")) names.add("effect or tag", effect);
    for (const std::string& affix : names.all("affix")) names.add("affix or tag", affix);
    for (const RawDefinition& definition : definitions)
        for (const WordSource& source : word_sources)
            if (definition.kind == source.kind)
                if (const Node* value = definition.body.find(source.key))
                    add_texts(*value, source.word, names);
}

} // namespace panoplon
