// The demo armoury, read from what is compiled in.
#pragma once

#include "armoury/read.h"
#include "demo/files.h"

namespace panoplon::bench {

inline Armoury demo_armoury() {
    Sources sources;
    for (const EmbeddedFile& file : demo_files())
        sources.add(std::string(file.path), std::string(file.text));
    return read_sources(std::move(sources), Sink()).armoury;
}

} // namespace panoplon::bench
