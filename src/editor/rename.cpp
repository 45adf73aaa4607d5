#include "editor/rename.h"

#include "armoury/references.h"
#include "base/text.h"

#include <algorithm>
#include <fmt/format.h>
#include <set>

namespace panoplon {

namespace {

std::string full_name(const Thing& thing) {
    return thing.kind + "." + thing.id;
}

/// Who names whom under which key, of what is there; with one thing called otherwise.
std::vector<std::string> references_of(const Edited& edited, const Thing& thing,
                                       const std::string& id) {
    const auto name = [&](const std::string& full) {
        return full == full_name(thing) ? thing.kind + "." + id : full;
    };
    std::vector<std::string> list;
    for (const Reference& reference : find_references(edited.read.definitions)) {
        const std::size_t dot = reference.to.find('.');
        const std::string kind = reference.to.substr(0, dot);
        if (edited.ids.find(kind, reference.to.substr(dot + 1)) < 0) continue;
        // A path may name a stat, as in add.guard; what it names is in `to`.
        list.push_back(fmt::format("{} {} {}", name(reference.from),
                                   reference.path.substr(0, reference.path.find('.')),
                                   name(reference.to)));
    }
    std::sort(list.begin(), list.end());
    return list;
}

/// The first mistake that is told as none was before, of a reading that has more.
Diagnostic new_mistake(const Edited& before, const Edited& after) {
    std::set<std::string> known;
    for (const Diagnostic& one : before.read.sink.sorted(Severity::mistake))
        known.insert(one.message);
    const std::vector<Diagnostic> all = after.read.sink.sorted(Severity::mistake);
    const auto fresh = std::find_if(all.begin(), all.end(), [&](const Diagnostic& one) {
        return !known.contains(one.message);
    });
    return fresh == all.end() ? all.front() : *fresh;
}

Failure refusal(std::string message, std::string hint = {}) {
    return {Cause::refused, std::move(message), std::move(hint)};
}

} // namespace

Sources with_edits(const Sources& sources, const std::vector<TextEdit>& edits) {
    Sources edited;
    for (std::size_t file = 0; file < sources.files().size(); ++file) {
        const Sources::File& in = sources.files()[file];
        std::vector<TextEdit> here; // from the end, so that places stay
        for (const TextEdit& edit : edits)
            if (edit.range.file == static_cast<std::int32_t>(file)) here.push_back(edit);
        std::sort(here.begin(), here.end(), [](const TextEdit& a, const TextEdit& b) {
            return a.range.offset > b.range.offset;
        });
        std::string text = in.text;
        for (const TextEdit& edit : here)
            text.replace(edit.range.offset, edit.range.length, edit.text);
        edited.add(in.path, std::move(text), in.was);
    }
    return edited;
}

Result<std::vector<TextEdit>> rename(const Edited& edited, const Thing& thing,
                                     const std::string& id) {
    const Sources& sources = edited.read.sources;
    if (!is_id(id)) return refusal(fmt::format("'{}' is not an id", id), id_words);
    if (id == thing.id) return std::vector<TextEdit>();
    if (edited.ids.find(thing.kind, id) >= 0)
        return refusal(fmt::format("another {} has the id '{}'", thing.kind, id));
    std::vector<TextEdit> edits;
    for (const Mention& mention : mentions_of(edited, thing)) {
        const Sources::File& in = sources.file(mention.range.file);
        const Span at = sources.at(mention.range.file, mention.range.offset);
        if (in.is_sheet())
            return refusal(
                fmt::format("'{}' is named at {}, in a workbook", thing.id, place(at, sources)),
                "an editor can't change a workbook");
        if (mention.by_name && mention.defines)
            return refusal(fmt::format("the id '{}' is made from the name at {}", thing.id,
                                       place(at, sources)),
                           "change the name there, or give the table a column 'id'");
        if (!mention.by_name) edits.push_back({mention.range, id});
    }
    // Both of texts alone: what could not be read of the folder is no matter of the rename.
    const Edited before = edited_of(with_edits(sources, {}), {});
    const Edited renamed = edited_of(with_edits(sources, edits), {});
    if (renamed.read.sink.mistake_count() > before.read.sink.mistake_count()) {
        const Diagnostic mistake = new_mistake(before, renamed);
        return refusal(fmt::format("with the id '{}' there would be a mistake at {}: {}", id,
                                   place(mistake.span, sources), mistake.message));
    }
    if (references_of(renamed, {}, "") != references_of(before, thing, id))
        return refusal(
            fmt::format("with the id '{}' something would name another thing than now", id),
            fmt::format("is '{0}' or '{1}' a tag, or another kind of thing, too?", thing.id, id));
    return edits;
}

} // namespace panoplon
