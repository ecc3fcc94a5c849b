// SPDX-License-Identifier: GPL-3.0-or-later
#include "app/bench/log_batch.h"

#include "core/reduce/reduce.h"
#include "store/log/log_reader.h"
#include "store/log/mapped_file.h"
#include "store/project/packing.h"

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

ImportedLog readOne(const std::string& path, const ReduceSettings& settings, const std::stop_token& stop) {
    const MappedFile file(path);
    LogOptions options;
    options.allChannels = true;
    options.stop = stop;
    ImportedLog log;
    log.fileName = QFileInfo(QString::fromStdString(path)).fileName().toStdString();
    log.trace = readLog(file.bytes(), path, options);
    log.sha256 = sha256(file.bytes());
    log.bytes = static_cast<std::int64_t>(file.bytes().size());
    log.fileTime = fileTime(path);
    log.reduction = reduce(log.trace, settings);
    return log;
}

} // namespace

LogBatch readLogBatch(const std::vector<std::string>& files, const ReduceSettings& settings,
                      std::stop_token stop, const Progress& progress) {
    LogBatch batch;
    for (std::size_t i = 0; i < files.size(); ++i) {
        if (stop.stop_requested()) throw Cancelled{};
        try {
            batch.logs.push_back(readOne(files[i], settings, stop));
        } catch (const InputError& error) {
            batch.refused.push_back(sentence(error));
        }
        progress(static_cast<double>(i + 1) / static_cast<double>(files.size()));
    }
    return batch;
}

} // namespace ibuki
