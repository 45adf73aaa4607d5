// The typed indices of every kind of definition.
#pragma once

#include "base/id.h"

namespace panoplon {

using StatId = Id<struct StatKind>;
using PoolId = Id<struct PoolKind>;
using DamageId = Id<struct DamageKind>;
using TierId = Id<struct TierKind>;
using SlotId = Id<struct SlotKind>;
using AffixId = Id<struct AffixKind>;
using ItemId = Id<struct ItemKind>;
using PatternId = Id<struct PatternKind>;
using SetId = Id<struct SetKind>;
using EffectId = Id<struct EffectKind>;
using UpgradeId = Id<struct UpgradeKind>;
using ActionId = Id<struct ActionKind>;
using CharacterId = Id<struct CharacterKind>;
using FoeId = Id<struct FoeKind>;
using LoadoutId = Id<struct LoadoutKind>;
using EncounterId = Id<struct EncounterKind>;
using DropsId = Id<struct DropsKind>;
using JourneyId = Id<struct JourneyKind>;

} // namespace panoplon
