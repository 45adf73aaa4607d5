// Values as bytes, for another rank of the same run: so both are of one build, and a value needs no
// version. What is made up of numbers alone travels as it lies in memory; anything else says what
// it is made up of, in `serialize(archive, value)`.
#pragma once

#include "base/id.h"

#include <cereal/archives/binary.hpp>
#include <cereal/types/array.hpp>
#include <cereal/types/map.hpp>
#include <cereal/types/optional.hpp>
#include <cereal/types/string.hpp>
#include <cereal/types/utility.hpp>
#include <cereal/types/vector.hpp>
#include <sstream>
#include <string>
#include <type_traits>

namespace panoplon {

/// A struct of numbers, and no container of them.
template <class Value>
concept Numbers = std::is_class_v<Value> && std::is_aggregate_v<Value> &&
    std::is_trivially_copyable_v<Value> && !requires(Value value) {
    value.size();
};

} // namespace panoplon

/// The library looks here for every type, those of unnamed namespaces, too.
namespace cereal {

template <class Archive, panoplon::Numbers Value>
void serialize(Archive& archive, Value& value) {
    archive(binary_data(&value, sizeof value));
}

} // namespace cereal

namespace panoplon {

template <class Archive, class Kind>
void serialize(Archive& archive, Id<Kind>& id) {
    archive(id.value);
}

template <class Value>
[[nodiscard]] std::string bytes_of(const Value& value) {
    std::ostringstream bytes(std::ios::binary);
    cereal::BinaryOutputArchive{bytes}(value);
    return std::move(bytes).str();
}

template <class Value>
[[nodiscard]] Value value_of_bytes(const std::string& bytes) {
    std::istringstream from(bytes, std::ios::binary);
    Value value;
    cereal::BinaryInputArchive{from}(value);
    return value;
}

} // namespace panoplon
