// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/log_batch.h"

#include "app/say.h"
#include "core/reduce/probe.h"
#include "core/reduce/reduce.h"
#include "store/digest.h"
#include "store/log/mapped_file.h"
#include "words/words.h"

#include <QDateTime>
#include <QFileInfo>

namespace ibuki {
namespace {

std::optional<Instant> fileTime(const std::string& path) {
    const QDateTime changed = QFileInfo(QString::fromStdString(path)).lastModified();
    if (!changed.isValid()) return std::nullopt;
    const QDate day = changed.date();
    return makeInstant(day.year(), static_cast<unsigned>(day.month()), static_cast<unsigned>(day.day()),
                       changed.time().msecsSinceStartOfDay());
}

} // namespace

ReadLog readOneLog(const std::string& path, const BatchRules& rules, LogOptions options,
                   std::stop_token stop) {
    const MappedFile file(path);
    options.allChannels = false; // the others are streamed into the project once the log is taken
    options.stop = std::move(stop);
    options.rolesByHeader = rules.remembered;
    LogReading reading;
    try {
        reading = readLogReported(file.bytes(), path, options);
    } catch (const InputError& error) {
        if (error.code != "log-no-channels" || options.roomOnly) throw;
        options.roomOnly = true; // a probe names its one column as it likes
        reading = readLogReported(file.bytes(), path, options);
    }
    file.requireWhole();
    ReadLog read;
    read.log.fileName = QFileInfo(QString::fromStdString(path)).fileName().toStdString();
    read.log.sha256 = sha256(file.bytes());
    read.log.bytes = static_cast<std::int64_t>(file.bytes().size());
    read.log.fileTime = fileTime(path);
    read.log.readAs = readAs(reading.report);
    read.log.trace = std::move(reading.trace);
    read.log.settings = rules.settings;
    read.log.reduction = reduceByEveryMetric(read.log.trace, rules.settings);
    options.stop = {};
    options.progress = {};
    options.rolesByHeader.clear();
    options.roles = reading.report.stated;
    read.source = {path, std::move(options), std::move(reading.report), std::move(reading.keptRows),
                   file.stamp()};
    return read;
}

void reduceWith(ImportedLog& log, const ImportedLog* probe) {
    if (!probe) {
        log.reduction = reduceByEveryMetric(log.trace, log.settings);
        return;
    }
    const ProbeAlignment alignment = alignmentFor(log.trace, probe->trace, std::nullopt);
    log.reduction = reduceByEveryMetric(withProbe(log.trace, probe->trace, alignment), log.settings);
}

LogBatch readLogBatch(const std::vector<std::string>& files, const BatchRules& rules, std::stop_token stop,
                      const Progress& progress) {
    LogBatch batch;
    for (std::size_t i = 0; i < files.size(); ++i) {
        if (stop.stop_requested()) throw Cancelled{};
        LogOptions options;
        options.progress = [&](double share) {
            progress((static_cast<double>(i) + share) / static_cast<double>(files.size()));
        };
        try {
            ReadLog read = readOneLog(files[i], rules, std::move(options), stop);
            batch.logs.push_back(std::move(read.log));
            batch.sources.push_back(std::move(read.source));
        } catch (const InputError& error) {
            batch.refused.push_back(words::sentence(error));
        }
        progress(static_cast<double>(i + 1) / static_cast<double>(files.size()));
    }
    const auto probes = probesAmong(batch.logs);
    for (std::size_t i = 0; i < probes.size(); ++i)
        if (probes[i]) reduceWith(batch.logs[*probes[i]], &batch.logs[i]);
    return batch;
}

} // namespace ibuki
