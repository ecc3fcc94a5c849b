// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// The looks of a study's mounts in its report: each face from above beside its mask, how much was covered,
// what was seen.

#include "core/domain/document.h"
#include "core/domain/joint_inspection.h"
#include "core/domain/study.h"

#include <functional>
#include <string>

namespace ibuki {

/// The bytes of a file of the project by its digest; empty where it cannot be read.
using ProjectFiles = std::function<std::string(const std::string& sha256)>;

/// The face from above and its mask side by side, a JPEG; empty where the picture was not measured or cannot
/// be read.
std::string lookThumbnail(const JointPicture& picture, const ProjectFiles& files);

/// A small picture of each, by whoever keeps them: what is worked out once need not be again.
using LookThumbnails = std::function<std::string(const JointPicture& picture)>;

/// HTML; empty where no mount of the study was looked at.
std::string looksHtml(const Document& document, const Question& question, const LookThumbnails& thumbnails);

/// "dry, residue; twisted, effort 3; cleaned in 4 min": what was seen of a joint, in a line.
std::string seenText(const JointInspection& look);

} // namespace ibuki
