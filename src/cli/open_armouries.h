// The armouries whose files an editor has open, as they stand there.
#pragma once

#include "cli/folder_events.h"
#include "editor/hover.h"

#include <filesystem>
#include <map>
#include <memory>
#include <optional>
#include <string>

namespace panoplon {

class OpenArmoury {
  public:
    explicit OpenArmoury(std::filesystem::path folder);

    [[nodiscard]] const std::filesystem::path& folder() const { return folder_; }
    /// What is open and not as it is on the disk counts from the next reading on.
    void open(const std::string& path, std::string text);
    void close(const std::string& path);
    /// As it stands now; null where the folder can't be read, and trouble() says why. What it gave
    /// before is gone then.
    [[nodiscard]] const Edited* edited();
    [[nodiscard]] const std::string& trouble() const { return trouble_; }
    /// How often it was read: whoever has told of the last reading has nothing new to tell.
    [[nodiscard]] int readings() const { return readings_; }
    /// Of what was read last, or the last before it that had no mistake; null where none had.
    [[nodiscard]] const SoundArmoury* sound();

  private:
    /// Whether a reading would find other than the last one did: something was typed, or changed on
    /// the disk.
    [[nodiscard]] bool is_out_of_date();

    std::filesystem::path folder_;
    OpenTexts texts_; ///< by path relative to the folder
    FolderEvents events_;
    bool typed_ = true;
    int readings_ = 0;
    std::optional<Edited> edited_;
    std::string trouble_;
    std::optional<ReadArmoury> last_sound_; ///< before what was read last
    std::unique_ptr<SoundArmoury> sound_; ///< of the last sound reading; null until it is asked for
};

/// Found by the files that are open: the armoury of a file is the nearest folder above it that
/// holds an armoury.toml.
class OpenArmouries {
  public:
    /// Null where the file is in no armoury.
    [[nodiscard]] OpenArmoury* of_file(const std::filesystem::path& file);
    [[nodiscard]] std::map<std::filesystem::path, std::unique_ptr<OpenArmoury>>& all() {
        return armouries_;
    }

  private:
    std::map<std::filesystem::path, std::unique_ptr<OpenArmoury>> armouries_;
};

} // namespace panoplon
