// An armoury, as other programs see it: read from its folder, with every mistake on the way.
#pragma once

#include "panoplon/visible.h"

#include <memory>
#include <string>
#include <vector>

namespace panoplon::core {

/// A mistake or a doubt of the files.
struct Finding {
    std::string file; ///< within the armoury; empty where it is of none
    int line = 0;     ///< from 1; 0 where it is of no line
    int column = 0;   ///< from 1, in characters
    std::string message;
    std::string hint; ///< may be empty
};

/// What was read. It can be copied at no cost, and used by several threads at once.
class PANOPLON_VISIBLE Armoury {
  public:
    /// Reads the folder that holds armoury.toml. `what_ifs` are KEY=VALUE, as in
    /// "item.reed_coat.add.guard=20". Throws std::runtime_error where the folder can't be read;
    /// what is wrong in its files is in mistakes().
    [[nodiscard]] static Armoury read(const std::string& folder,
                                      const std::vector<std::string>& what_ifs = {});

    /// Whether there are no mistakes: only then can anything else be asked.
    [[nodiscard]] bool usable() const;
    [[nodiscard]] std::vector<Finding> mistakes() const;
    [[nodiscard]] std::vector<Finding> doubts() const;

    [[nodiscard]] std::string name() const;
    /// Tells states of the files apart: 16 hexadecimal digits.
    [[nodiscard]] std::string hash() const;
    [[nodiscard]] int first_level() const;
    [[nodiscard]] int last_level() const;
    /// Ids of a kind, in the order of the files: "item", "loadout", "encounter", "character", …
    /// Empty for a kind that is none.
    [[nodiscard]] std::vector<std::string> ids(const std::string& kind) const;

    struct Inside;
    [[nodiscard]] const Inside& inside() const { return *inside_; } ///< for this library only

  private:
    explicit Armoury(std::shared_ptr<const Inside> inside) : inside_(std::move(inside)) {}
    std::shared_ptr<const Inside> inside_;
};

} // namespace panoplon::core
