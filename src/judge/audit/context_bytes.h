// What is found in a context as bytes, for other ranks: what each is made up of.
#pragma once

#include "fight/trial_bytes.h"
#include "judge/audit/measured_context.h"

namespace panoplon {

template <class Archive>
void serialize(Archive& archive, Drawn& drawn) {
    archive(drawn.rolled, drawn.affixes);
}

template <class Archive>
void serialize(Archive& archive, WornItem& worn) {
    archive(worn.slot, worn.item, worn.span, worn.socketed, worn.drawn, worn.felled);
}

/// Of a search: it has no uses and no swaps of its own.
template <class Archive>
void serialize(Archive& archive, Outfit& outfit) {
    archive(outfit.character, outfit.level, outfit.worn, outfit.pack, outfit.upgrades,
            outfit.actions, outfit.held_pieces);
}

template <class Archive>
void serialize(Archive& archive, Placed& placed) {
    archive(placed.item, placed.sockets);
}

template <class Archive>
void serialize(Archive& archive, Candidate& candidate) {
    archive(candidate.places, candidate.counts, candidate.points);
}

template <class Archive>
void serialize(Archive& archive, Position& position) {
    archive(position.slot, position.place, position.path);
}

template <class Archive>
void serialize(Archive& archive, ContextRow& row) {
    archive(row.context, row.highest_rank, row.weight, row.best, row.found, row.outfit, row.proven,
            row.missed, row.roughness, row.limiting, row.error);
}

template <class Archive>
void serialize(Archive& archive, SeenOutfits& seen) {
    std::string bytes = seen.bytes();
    archive(bytes);
    seen = SeenOutfits(std::move(bytes));
}

template <class Archive>
void serialize(Archive& archive, MeasuredContext& measured) {
    archive(measured.context, measured.best, measured.rows, measured.packed_rows, measured.seen);
}

} // namespace panoplon
