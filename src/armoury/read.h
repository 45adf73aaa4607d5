// From a folder to a resolved armoury, with every mistake on the way.
#pragma once

#include "armoury/files.h"
#include "base/result.h"
#include "diagnostic/diagnostic.h"
#include "model/armoury.h"

#include <string>
#include <vector>

namespace panoplon {

struct ReadArmoury {
    Armoury armoury; ///< complete only when there are no mistakes
    Sources sources; ///< the files, then the what-ifs
    Sink sink;
    std::vector<RawDefinition> definitions; ///< as checked, with what came from patterns

    [[nodiscard]] bool usable() const { return sink.mistake_count() == 0; }
};

/// Reads and resolves the armoury in a folder. A Failure (Cause::file) when the folder can't be
/// read at all; everything that is wrong in its files is in the sink. `changes` are what-ifs,
/// KEY=VALUE each, laid over what the files say.
[[nodiscard]] Result<ReadArmoury> read_armoury(const std::string& folder,
                                               const std::vector<std::string>& changes = {});

/// The same from texts that are read already; `sink` has what was wrong in reading them.
[[nodiscard]] ReadArmoury read_sources(Sources sources, Sink sink,
                                       const std::vector<std::string>& changes = {});

/// Its two steps. Files are understood once: every definition as it is written, by itself. Then
/// what-ifs are laid over them, and all is resolved: patterns, references, what holds across
/// definitions. That can be done again with other what-ifs.
struct UnderstoodFiles {
    Sources sources;
    Sink sink;
    RawArmoury raw;
    TableNames names;
};
[[nodiscard]] UnderstoodFiles understand_files(Sources sources, Sink sink);
[[nodiscard]] ReadArmoury resolve(UnderstoodFiles files, const std::vector<std::string>& changes);

} // namespace panoplon
