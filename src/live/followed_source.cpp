// SPDX-License-Identifier: GPL-3.0-or-later
// A log that another program writes, as a source: appended bytes, rotation (another file of the name),
// truncation and deletion are followed.

#include "core/base/input_error.h"
#include "live/source.h"
#include "store/log/followed_log.h"

#include <algorithm>
#include <cerrno>
#include <cstring>
#include <fcntl.h>
#include <sys/stat.h>
#include <unistd.h>

namespace ibuki {
namespace {

constexpr double pollS = 0.05;
constexpr double headWaitS = 3;         ///< for column names, at the opening
constexpr off_t headBytes = 256 * 1024; ///< of a long log, to tell how it is written

SourceChannel channelOf(const Channel& channel) {
    return {channel.column, channel.role, canonicalUnit(channel.fileUnit), {}, {}};
}

/// The file behind the name, read from where it was read last.
class GrowingFile {
public:
    explicit GrowingFile(std::string path) : path_(std::move(path)) {}
    ~GrowingFile() { close(); }
    GrowingFile(const GrowingFile&) = delete;
    GrowingFile& operator=(const GrowingFile&) = delete;

    bool open() {
        close();
        fd_ = ::open(path_.c_str(), O_RDONLY | O_CLOEXEC | O_NONBLOCK);
        struct stat file {};
        if (fd_ < 0 || ::fstat(fd_, &file) != 0) return false;
        inode_ = file.st_ino;
        device_ = file.st_dev;
        offset_ = 0;
        regular_ = S_ISREG(file.st_mode);
        return true;
    }
    void close() {
        if (fd_ >= 0) ::close(fd_);
        fd_ = -1;
    }
    off_t size() const {
        struct stat file {};
        return fd_ >= 0 && ::fstat(fd_, &file) == 0 ? file.st_size : 0;
    }
    bool isOpen() const { return fd_ >= 0; }
    bool isRegular() const { return regular_; }
    /// The name leads to another file by now.
    bool isReplaced() const {
        struct stat file {};
        return ::stat(path_.c_str(), &file) == 0 && (file.st_ino != inode_ || file.st_dev != device_);
    }
    bool isCutOff() const { return regular_ && size() < offset_; }
    void moveTo(off_t offset) { offset_ = offset; }
    off_t offset() const { return offset_; }

    /// What was appended, a megabyte at most; empty when there is nothing.
    std::string more() {
        std::string bytes(std::size_t{1} << 20U, '\0');
        const ssize_t count = regular_ ? ::pread(fd_, bytes.data(), bytes.size(), offset_)
                                       : ::read(fd_, bytes.data(), bytes.size());
        bytes.resize(count > 0 ? static_cast<std::size_t>(count) : 0);
        offset_ += static_cast<off_t>(bytes.size());
        return bytes;
    }

private:
    std::string path_;
    int fd_ = -1;
    ino_t inode_ = 0;
    dev_t device_ = 0;
    off_t offset_ = 0;
    bool regular_ = true;
};

class FollowedSource : public Source {
public:
    FollowedSource(std::string spec, const std::string& path, const SourceOptions& options)
        : spec_(std::move(spec)), file_(path), log_(path), fromStart_(options.fromStart) {
        if (!file_.open())
            throw InputError(errno == ENOENT ? "file-missing" : "file-unreadable", {path, {}, {}},
                             {{"reason", std::strerror(errno)}});
        readHead();
    }

    const std::string& spec() const override { return spec_; }
    bool hasOwnClock() const override { return true; }
    std::optional<Instant> start() const override { return log_.start(); }
    double intervalS() const override { return 0; }

    std::vector<SourceChannel> channels() const override {
        std::vector<SourceChannel> channels;
        for (const Channel& channel : log_.channels()) channels.push_back(channelOf(channel));
        return channels;
    }

    std::vector<double> readNow() override {
        return waiting_.empty() ? std::vector<double>() : waiting_.back().values;
    }

    void run(const std::stop_token& stop, SourceSink& sink) override {
        std::size_t reported = channelsAtOpening_;
        std::int64_t bad = 0;
        if (fromStart_) hand(sink, std::exchange(waiting_, {}));
        do {
            const bool any = readOn();
            if (log_.channels().size() > reported) {
                const auto all = channels();
                sink.add({all.begin() + static_cast<std::ptrdiff_t>(reported), all.end()});
                reported = all.size();
            }
            hand(sink, log_.take());
            if (log_.badRows() > bad) sink.badRows(log_.badRows() - bad);
            bad = log_.badRows();
            if (any && !stop.stop_requested()) continue; // there may be more
            waitUntil(stop, steadyNowS() + pollS);
        } while (!stop.stop_requested());
    }

private:
    /// How the log is written; of a long one without its rows, unless they are wanted.
    void readHead() {
        const double until = steadyNowS() + headWaitS;
        while (log_.channels().empty() && steadyNowS() < until) {
            const std::string bytes = file_.more();
            log_.feed(bytes);
            if (bytes.empty() && log_.channels().empty()) waitUntil({}, steadyNowS() + pollS);
        }
        log_.layOutNow();
        waiting_ = log_.take();
        channelsAtOpening_ = log_.channels().size();
        if (fromStart_) return;
        skipToEnd();
    }

    void skipToEnd() {
        const off_t size = file_.size();
        if (file_.isRegular()
            && size - file_.offset() > headBytes) { // the last rows tell where its clock stands
            file_.moveTo(size - headBytes);
            std::string bytes = file_.more();
            const std::size_t newline = bytes.find('\n');
            log_.restartLine();
            log_.feed(
                std::string_view(bytes).substr(newline == std::string::npos ? bytes.size() : newline + 1));
        }
        for (std::string bytes = file_.more(); !bytes.empty(); bytes = file_.more()) log_.feed(bytes);
        for (TimedRow& row : log_.take()) waiting_.push_back(std::move(row));
        if (waiting_.size() > 1) waiting_.erase(waiting_.begin(), waiting_.end() - 1);
    }

    /// Feeds what was appended; true when there was something.
    bool readOn() {
        if (!file_.isOpen()) {
            if (!file_.open()) return false; // it was deleted, and is not there again
            log_.restart();
        }
        if (file_.isCutOff()) {
            file_.moveTo(0);
            log_.restart();
        }
        const std::string bytes = file_.more();
        if (!bytes.empty()) {
            log_.feed(bytes);
            return true;
        }
        if (file_.isRegular() && file_.isReplaced()) file_.close(); // what it still held was read
        return false;
    }

    static void hand(SourceSink& sink, std::vector<TimedRow> rows) {
        for (TimedRow& row : rows) sink.take({row.timeS, std::move(row.values)});
    }

    std::string spec_;
    GrowingFile file_;
    FollowedLog log_;
    bool fromStart_;
    std::size_t channelsAtOpening_ = 0;
    std::vector<TimedRow> waiting_; ///< read while opening
};

} // namespace

std::unique_ptr<Source> openFollowedLog(const std::string& spec, const std::string& file,
                                        const SourceOptions& options) {
    return std::make_unique<FollowedSource>(spec, file, options);
}

} // namespace ibuki
