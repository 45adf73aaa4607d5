#include "judge/search/shared_answers.h"

#include <cstring>

namespace panoplon {

namespace {

void append(std::string& bytes, std::uint64_t number) {
    bytes.append(reinterpret_cast<const char*>(&number), sizeof number);
}

std::uint64_t number_at(const std::string& bytes, std::size_t& at) {
    std::uint64_t number = 0;
    std::memcpy(&number, bytes.data() + at, sizeof number);
    at += sizeof number;
    return number;
}

} // namespace

std::optional<std::string> AnswersFound::find(std::uint64_t key) {
    std::optional<std::string> answer = known_.find(key);
    if (answer) keep(key, *answer);
    return answer;
}

void AnswersFound::keep(std::uint64_t key, const std::string& answer) {
    append(bytes_, key);
    append(bytes_, answer.size());
    bytes_ += answer;
}

void AnswersFound::reject(std::uint64_t key) {
    known_.reject(key);
}

void keep_answers(const std::string& bytes, Memory& into) {
    for (std::size_t at = 0; at < bytes.size();) {
        const std::uint64_t key = number_at(bytes, at);
        const std::uint64_t size = number_at(bytes, at);
        into.keep(key, bytes.substr(at, size));
        at += size;
    }
}

} // namespace panoplon
