#include "cli/known_contexts.h"

#include "show/audit/memory_file.h"
#include "show/written_files.h"

#include <filesystem>

namespace panoplon {

std::uint64_t KnownContexts::edition() {
    static const std::uint64_t hash =
        hash_text(file_text("/proc/self/exe"), hash_text(PANOPLON_VERSION));
    return hash;
}

KnownContexts::KnownContexts(const Invocation& invocation) : has_folder_(invocation.has("o")) {
    if (has_folder_)
        read_memory(
            file_text((std::filesystem::path(invocation.value("o")) / memory_file_name).string()),
            memory_);
}

Recall KnownContexts::recall(const ReadArmoury& read) {
    return {&memory_, content_of(read), edition()};
}

void KnownContexts::keep_in(Document& document) const {
    if (has_folder_) document.files.push_back({memory_file_name, memory_text(memory_)});
}

} // namespace panoplon
