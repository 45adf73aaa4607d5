// What every fuzz target is: one input, which is to bring about no crash, no endless work and no
// fault that a sanitizer sees.
#pragma once

#include "armoury/content.h"
#include "armoury/live_keys.h"
#include "armoury/read.h"
#include "armoury/write.h"
#include "base/text.h"
#include "demo/files.h"
#include "judge/paper/doubts.h"

#include <cstddef>
#include <cstdint>
#include <filesystem>
#include <fstream>
#include <string>
#include <unistd.h>

extern "C" int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size);

namespace panoplon::fuzz {

inline std::string text_of(const std::uint8_t* bytes, std::size_t size) {
    return {reinterpret_cast<const char*>(bytes), size};
}

/// The armoury that `new` writes, with a further file.
inline Sources sources_with(const std::string& path, const std::string& text) {
    Sources sources;
    for (const EmbeddedFile& file : starter_files())
        sources.add(std::string(file.path), std::string(file.text));
    sources.add(path, text);
    return sources;
}

/// All that is done with an armoury before it fights.
inline void look_through(ReadArmoury read) {
    for (const Severity severity : {Severity::mistake, Severity::doubt})
        for (const Diagnostic& diagnostic : read.sink.sorted(severity))
            static_cast<void>(render(diagnostic, read.sources));
    if (!read.usable()) return;
    find_doubts(read.armoury, read.sink);
    static_cast<void>(content_of(read));
    for (const RawDefinition& definition : read.definitions) {
        static_cast<void>(toml_text(definition));
        static_cast<void>(key_states(read.armoury, definition));
    }
}

/// A file that holds the input, in a folder of this process.
inline std::string file_with(const char* name, const std::uint8_t* bytes, std::size_t size) {
    const std::filesystem::path folder =
        std::filesystem::temp_directory_path() / ("panoplon-fuzz-" + std::to_string(getpid()));
    std::filesystem::remove_all(folder);
    std::filesystem::create_directories(folder);
    std::string path = (folder / name).string();
    std::ofstream(path, std::ios::binary)
        .write(reinterpret_cast<const char*>(bytes), static_cast<std::streamsize>(size));
    return path;
}

} // namespace panoplon::fuzz
