// What shells and `man` read of the program, made from its table of commands.
#pragma once

#include <string>

namespace panoplon {

/// Completes commands, options and their values, files, and ids of the armoury that stands on the
/// line (by `panoplon list ARMOURY KIND --ids`).
[[nodiscard]] std::string bash_completion_text();
[[nodiscard]] std::string zsh_completion_text();
/// A page of section 1, in the man macros.
[[nodiscard]] std::string man_page_text();

/// What can stand for an operand's or an option's word.
struct Completion {
    enum class What { nothing, folder, file, ids, words };
    What what = What::nothing;
    std::string detail; ///< kind of the ids, or the words with blanks between
};
[[nodiscard]] Completion completion_of_operand(const std::string& word);
/// `option`: its name without dashes; `value`: the word for its value.
[[nodiscard]] Completion completion_of_option(const std::string& option, const std::string& value);

} // namespace panoplon
