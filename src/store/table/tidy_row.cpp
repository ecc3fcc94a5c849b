// SPDX-License-Identifier: GPL-3.0-or-later
#include "store/table/tidy_row.h"

#include "core/clock/mount_history.h"
#include "core/domain/lookup.h"
#include "core/domain/words.h"

namespace ibuki {
namespace {

template <class E> std::string nameOf(const Document& document, std::optional<Id<E>> id) {
    const E* found = document.find(id);
    return found ? found->name : std::string();
}

} // namespace

TidyRow tidyRow(const Document& document, const Question& question, const RunRow& row) {
    TidyRow tidy;
    tidy.study = nameOf(document, std::optional(question.study));
    const Mount* mount = document.find(row.mountId);
    const Run* run = document.find(row.runId);
    if (const Bench* bench = mount ? benchOf(document, *mount) : nullptr) tidy.bench = bench->name;
    tidy.site = nameOf(document, std::optional(question.site));
    tidy.material = nameOf(document, row.material);
    tidy.lot = nameOf(document, row.lot);
    tidy.level = nameOf(document, row.level);
    tidy.mount = row.mount;
    tidy.block = row.block;
    tidy.run = runName(row);
    tidy.load = nameOf(document, row.load);
    tidy.purpose = word(exportedPurpose(row));
    if (run) {
        const RunAge age = ageOf(document, *run);
        tidy.ageH = age.hours;
        tidy.cycles = age.cycles;
    }
    if (mount && mount->rejected)
        tidy.reason = mount->reason;
    else if (run && run->rejected)
        tidy.reason = run->reason;
    return tidy;
}

} // namespace ibuki
