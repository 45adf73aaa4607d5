#include "report/draw.h"

#include "base/disk.h"
#include "base/parallel.h"
#include "report/page.h"
#include "show/written_files.h"

#include <filesystem>
#include <fmt/format.h>
#include <mutex>

namespace panoplon {

namespace {

void gather(std::vector<ReportBlock>& blocks, std::vector<Picture*>& pictures) {
    for (ReportBlock& block : blocks) {
        if (auto* picture = std::get_if<Picture>(&block.content)) pictures.push_back(picture);
        if (auto* fold = std::get_if<Fold>(&block.content)) gather(fold->blocks, pictures);
    }
}

Result<std::vector<std::string>> draw(Picture& picture, const std::filesystem::path& figures,
                                      std::size_t number) {
    const std::filesystem::path folder = figures / picture.folder;
    std::error_code error;
    std::filesystem::create_directories(folder, error);
    if (error)
        return Failure{
            Cause::file,
            fmt::format("can't make the folder '{}': {}", folder.string(), error.message()),
            {}};
    Result<std::vector<std::string>> written = write_figure(folder.string(), picture.figure);
    if (!written.ok()) return written;
    const std::string path = (folder / (picture.figure.name + ".svg")).string();
    std::string svg;
    if (const auto why = read_bytes(path, svg))
        return Failure{Cause::file, fmt::format("can't read '{}': {}", path, *why), {}};
    picture.svg = svg_for_page(svg, picture.figure, fmt::format("figure-{}-", number));
    return written;
}

} // namespace

Result<std::vector<std::string>> draw_pictures(Report& report, const std::string& folder,
                                               const Watch& watch) {
    std::vector<Picture*> pictures;
    for (Section& section : report.sections) gather(section.blocks, pictures);
    std::vector<std::vector<std::string>> paths(pictures.size());
    std::optional<Failure> failure;
    std::mutex guard;
    std::size_t drawn = 0;
    for_each_in_parallel(pictures.size(), [&](std::size_t i) {
        if (watch.stopped()) return;
        const auto done = draw(*pictures[i], std::filesystem::path(folder) / "figures", i + 1);
        const std::lock_guard<std::mutex> lock(guard);
        if (!done.ok()) {
            if (!failure) failure = done.failure();
            return;
        }
        paths[i] = done.value();
        if (watch.progress) watch.progress(++drawn, pictures.size());
    });
    if (failure) return *failure;
    report.partial = report.partial || watch.stopped();
    std::vector<std::string> all;
    for (const auto& some : paths) all.insert(all.end(), some.begin(), some.end());
    return all;
}

} // namespace panoplon
