// SPDX-License-Identifier: GPL-3.0-or-later
#pragma once

// A study as a document or as data: self-contained HTML, tidy CSV (one row a run), JSON.

#include "core/domain/study.h"
#include "store/paper/ladder_svg.h"
#include "store/paper/look_section.h"
#include "store/paper/sentences.h"

namespace ibuki {

/// What goes into the document; the data exports are always whole.
struct ReportParts {
    bool ladder = true;
    bool sentences = true;
    bool pairs = true;
    bool runs = true;
    bool conditions = true;
    bool looks = true;
    bool ageing = true;
    bool cautions = true;
};

/// First question of the study of that name, or of the newest study when the name is empty; nullptr when
/// none.
const Question* findStudyQuestion(const Document& document, const std::string& studyName);

/// thumbnails: of looks; without them what was seen is told without pictures.
std::string htmlReport(const Document& document, const Question& question, const ReportParts& parts = {},
                       const LookThumbnails& thumbnails = {});
std::string tidyCsv(const Document& document, const Question& question);
std::string jsonReport(const Document& document, const Question& question);

/// Class of each group's material by the group's id.
GroupClasses groupClasses(const Document& document, const Evidence& evidence);

} // namespace ibuki
