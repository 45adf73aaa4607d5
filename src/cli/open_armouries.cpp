#include "cli/open_armouries.h"

#include "armoury/content.h"
#include "judge/paper/doubts.h"

namespace panoplon {

namespace fs = std::filesystem;

OpenArmoury::OpenArmoury(fs::path folder) : folder_(std::move(folder)), events_(folder_.string()) {}

void OpenArmoury::open(const std::string& path, std::string text) {
    texts_[path] = std::move(text);
    typed_ = true;
}

void OpenArmoury::close(const std::string& path) {
    typed_ = texts_.erase(path) > 0 || typed_;
}

bool OpenArmoury::is_out_of_date() {
    return typed_ || events_.changed();
}

const Edited* OpenArmoury::edited() {
    if (!is_out_of_date()) return edited_ ? &*edited_ : nullptr;
    events_.begin();
    typed_ = false;
    ++readings_;
    if (edited_ && edited_->read.usable() && !sound_) last_sound_ = std::move(edited_->read);
    edited_.reset();
    trouble_.clear();
    Result<Edited> read = read_edited(folder_.string(), texts_);
    if (!read.ok()) {
        trouble_ = read.failure().message;
        return nullptr;
    }
    edited_ = read.take();
    if (edited_->read.usable()) {
        find_doubts(edited_->read.armoury, edited_->read.sink);
        sound_.reset();
    }
    return &*edited_;
}

const SoundArmoury* OpenArmoury::sound() {
    if (sound_) return sound_.get();
    if (edited_ && edited_->read.usable()) last_sound_ = edited_->read;
    if (!last_sound_) return nullptr;
    std::vector<PaperVerdict> paper = compare_on_paper(last_sound_->armoury);
    std::vector<std::uint64_t> contents = content_of(*last_sound_).items;
    sound_ = std::make_unique<SoundArmoury>(
        SoundArmoury{std::move(*last_sound_), std::move(paper), std::move(contents)});
    last_sound_.reset();
    return sound_.get();
}

OpenArmoury* OpenArmouries::of_file(const fs::path& file) {
    for (fs::path folder = file.parent_path(); folder.has_relative_path();
         folder = folder.parent_path()) {
        std::error_code error;
        if (!fs::exists(folder / "armoury.toml", error)) continue;
        std::unique_ptr<OpenArmoury>& armoury = armouries_[folder];
        if (!armoury) armoury = std::make_unique<OpenArmoury>(folder);
        return armoury.get();
    }
    return nullptr;
}

} // namespace panoplon
