// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// Walks along the references of a document that more than one room needs.

#include "core/domain/document.h"

namespace ibuki {

struct Instant;
struct Reduction;

/// The bench's newest configuration that is no variant; nullptr when it has none.
const Configuration* currentConfiguration(const Document& document, Id<Bench> bench);
/// The configuration whose layers, sites and sensors a mount of this one has: itself, or what it varies.
Id<Configuration> rigOf(const Document& document, Id<Configuration> configuration);
/// The configuration that a slot of these levels is mounted in: the level's, the second level's, else the
/// bench's current one. Levels may be nullptr.
const Configuration* configurationFor(const Document& document, Id<Bench> bench, const Level* level,
                                      const Level* second);

/// Layers chip first.
std::vector<const Layer*> layersOf(const Document& document, Id<Configuration> configuration);

const Bench* benchOf(const Document& document, const Mount& mount);

/// Mounts of a bench in the order of its record.
std::vector<const Mount*> mountsOf(const Document& document, Id<Bench> bench);
/// When the last of a mount's applications was done; nothing where none is stated.
std::optional<Instant> appliedAt(const Document& document, Id<Mount> mount);
/// When a mount was taken apart: as stated, else when its joint was looked at or the next mount was made on
/// its bench, whichever came first; nothing: it still stands.
std::optional<Instant> openedAt(const Document& document, const Mount& mount);
/// When the latest mount of any bench was made; the epoch's begin without one.
Instant newestMount(const Document& document);

/// Slots of a study in order.
std::vector<const Slot*> slotsOf(const Document& document, Id<Study> study);
const Slot* slotOf(const Document& document, Id<Study> study, Id<Mount> mount);

/// Levels of the question's first factor, or of the question whose levels it judges, in order.
std::vector<const Level*> levelsOf(const Document& document, Id<Question> question);
/// Levels of its second factor; empty when it has none.
std::vector<const Level*> secondLevelsOf(const Document& document, Id<Question> question);
/// The level that a slot has for the question: its own, one stated beside it, else the one whose material the
/// slot's mount has at the question's site; nullptr when none can be told.
const Level* levelIn(const Document& document, const Question& question, const Slot& slot);
/// Materials of the question's levels, in their order, each once.
std::vector<const Material*> levelMaterials(const Document& document, const Question& question);
/// The level that others are held against; nullptr when all are compared with each other.
const Level* referenceLevelOf(const Document& document, const Question& question);
const Question* firstQuestion(const Document& document, Id<Study> study);
/// The planned loads of a study, in order.
std::vector<const Load*> loadsOf(const Document& document, Id<Study> study);
/// What runs under this load are compared as: itself, or the load of an earlier study that it is.
Id<Load> loadIdentity(const Load& load);
/// The identity of a load of that name in another study on the bench. Asked once, when a load is made, to
/// propose that it is the same step; from then on names do not count.
std::optional<Id<Load>> earlierLoad(const Document& document, Id<Study> study, const std::string& name);
const Plan* planOf(const Document& document, Id<Study> study); ///< nullptr: none made yet

/// Both levels are changed without re-mounting. Either may be nullptr.
bool shareMount(const Level* a, const Level* b);

/// The application that a mount has at a site; nullptr when none is stated.
const Application* applicationAt(const Document& document, Id<Mount> mount, Id<Site> site);

/// What is studied in a mount by the first of its studies that tells it, else what was applied first; nullptr
/// when neither is stated.
const Material* materialOf(const Document& document, Id<Mount> mount);
/// The material at a site of a mount; nullptr when it is not known.
const Material* materialAt(const Document& document, Id<Mount> mount, Id<Site> site);
/// What a question studies in a mount: what was applied at its site, else what the mount's level is of;
/// nullptr when neither is stated.
const Material* studiedMaterial(const Document& document, const Question& question, Id<Mount> mount);

/// nullptr where the run has no figures, or stored ones that cannot be read.
const Reduction* reductionOf(const Document& document, Id<Run> run);

/// Runs of a mount whose recording is not withdrawn, in order of id.
std::vector<const Run*> runsOf(const Document& document, Id<Mount> mount);

} // namespace ibuki
