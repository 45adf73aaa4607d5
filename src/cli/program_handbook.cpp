#include "cli/program_handbook.h"

#include "cli/command.h"
#include "demo/files.h"

namespace panoplon {

namespace {

std::string_view page(std::string_view name) {
    for (const EmbeddedFile& file : page_files())
        if (file.path == name) return file.text;
    return {};
}

std::unique_ptr<const ReadArmoury> read_embedded(std::span<const EmbeddedFile> files,
                                                 const std::string& folder = {}) {
    Sources sources;
    for (const EmbeddedFile& file : files)
        sources.add(folder + std::string(file.path), std::string(file.text));
    return std::make_unique<const ReadArmoury>(read_sources(std::move(sources), {}));
}

} // namespace

ProgramHandbook::ProgramHandbook()
    : demo_(read_embedded(demo_files())),
      workshop_(read_embedded(workshop_files(), "workshop/")),
      handbook_{page("words.md"),
                page("model.md"),
                page("cookbook.md"),
                {demo_.get(), workshop_.get()},
                {}} {
    for (const CommandRow& row : command_rows())
        handbook_.commands.push_back(
            {std::string(row.name), std::string(row.summary), std::string(row.example)});
}

} // namespace panoplon
