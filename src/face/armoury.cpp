#include "panoplon/armoury.h"

#include "face/inside.h"
#include "judge/paper/doubts.h"

namespace panoplon::core {

namespace {

std::vector<Finding> findings(const ReadArmoury& read, Severity severity) {
    std::vector<Finding> list;
    for (const Diagnostic& one : read.sink.sorted(severity))
        list.push_back({one.span.file >= 0 ? read.sources.file(one.span.file).path : "",
                        one.span.line, one.span.column, one.message, one.hint});
    return list;
}

} // namespace

Armoury Armoury::read(const std::string& folder, const std::vector<std::string>& what_ifs) {
    Result<ReadArmoury> read = read_armoury(folder, what_ifs);
    if (!read.ok()) throw std::runtime_error(read.failure().message);
    auto inside = std::make_shared<Inside>(Inside{read.take()});
    if (inside->read.usable()) find_doubts(inside->read.armoury, inside->read.sink);
    return Armoury(std::move(inside));
}

bool Armoury::usable() const {
    return inside_->read.usable();
}

std::vector<Finding> Armoury::mistakes() const {
    return findings(inside_->read, Severity::mistake);
}

std::vector<Finding> Armoury::doubts() const {
    return findings(inside_->read, Severity::doubt);
}

std::string Armoury::name() const {
    return inside_->read.armoury.name;
}

std::string Armoury::hash() const {
    return inside_->read.armoury.hash;
}

int Armoury::first_level() const {
    return inside_->read.armoury.levels.first;
}

int Armoury::last_level() const {
    return inside_->read.armoury.levels.last;
}

std::vector<std::string> Armoury::ids(const std::string& kind) const {
    std::vector<std::string> list;
    for (const RawDefinition& definition : inside_->read.definitions)
        if (definition.kind == kind) list.push_back(definition.id);
    return list;
}

} // namespace panoplon::core
