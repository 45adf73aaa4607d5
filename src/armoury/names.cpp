#include "armoury/names.h"

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

} // namespace panoplon
