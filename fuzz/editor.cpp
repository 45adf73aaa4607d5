// A file that is open in an editor and not finished: its words, what may stand in it, what they
// are.
#include "editor/rename.h"
#include "editor/suggest.h"
#include "target.h"

using namespace panoplon;
using namespace panoplon::fuzz;

int LLVMFuzzerTestOneInput(const std::uint8_t* bytes, std::size_t size) {
    const std::string text = text_of(bytes, size);
    if (invalid_utf8(text) || text.find('\0') != std::string::npos) return 0; // refused before
    const bool is_table = size % 2 == 1;
    const Edited edited =
        edited_of(sources_with(is_table ? "more/items.csv" : "more.toml", text), {});
    const auto file = static_cast<std::int32_t>(edited.read.sources.files().size() - 1);
    const std::vector<Mark> marks = marks_of(edited, file);
    for (std::size_t place = 0; place <= text.size(); place += text.size() / 7 + 1)
        static_cast<void>(suggestions_at(edited, file, place));
    for (std::size_t i = 0; i < marks.size(); i += marks.size() / 3 + 1)
        for (const Mention& mention : mentions_in(edited, marks[i]))
            static_cast<void>(rename(edited, mention.thing, "another"));
    return 0;
}
