/* Preloaded into a process: writes down, in one order, what it does to the files of one folder (POWER_FOLDER): every write
 * with its bytes, every truncation, sync, rename, link and removal. From that record a power cut is replayed anywhere
 * (scripts/power.ts). A line per step in POWER_LOG, the bytes beside it in POWER_LOG.data. */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <fcntl.h>
#include <limits.h>
#include <pthread.h>
#include <stdarg.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <sys/uio.h>
#include <unistd.h>

static pthread_mutex_t lock = PTHREAD_MUTEX_INITIALIZER;
static int log_fd = -1, data_fd = -1;
static long long data_at = 0;
static const char *folder = NULL;
static size_t folder_len = 0;
static ssize_t (*real_write)(int, const void *, size_t);
static ssize_t (*real_pwrite)(int, const void *, size_t, off64_t);
static int (*real_open)(const char *, int, ...);

static void begin(void) {
  static int ready = 0;
  if (ready) return;
  ready = 1;
  real_write = dlsym(RTLD_NEXT, "write");
  real_pwrite = dlsym(RTLD_NEXT, "pwrite64");
  real_open = dlsym(RTLD_NEXT, "open64");
  folder = getenv("POWER_FOLDER");
  const char *to = getenv("POWER_LOG");
  if (!folder || !to) return;
  folder_len = strlen(folder);
  char data[PATH_MAX];
  snprintf(data, sizeof data, "%s.data", to);
  log_fd = real_open(to, O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0600);
  data_fd = real_open(data, O_WRONLY | O_CREAT | O_APPEND | O_CLOEXEC, 0600);
}
static int ours(const char *path) {
  return log_fd >= 0 && path && strncmp(path, folder, folder_len) == 0 && (path[folder_len] == '/' || path[folder_len] == 0);
}
static int path_of(int fd, char *out) {
  char link[64];
  snprintf(link, sizeof link, "/proc/self/fd/%d", fd);
  ssize_t n = readlink(link, out, PATH_MAX - 1);
  if (n < 0) return 0;
  out[n] = 0;
  return ours(out);
}
static void say(const char *line) { real_write(log_fd, line, strlen(line)); }
/* step path off len at */
static void say_write(const char *path, long long off, const void *buf, size_t len) {
  char line[PATH_MAX + 128];
  snprintf(line, sizeof line, "W\t%s\t%lld\t%zu\t%lld\n", path + folder_len, off, len, data_at);
  real_write(data_fd, buf, len);
  data_at += len;
  say(line);
}
static void say_one(char what, const char *path, long long n) {
  char line[PATH_MAX + 64];
  snprintf(line, sizeof line, "%c\t%s\t%lld\n", what, path + folder_len, n);
  say(line);
}
static void say_two(char what, const char *from, const char *to) {
  char line[2 * PATH_MAX + 16];
  snprintf(line, sizeof line, "%c\t%s\t%s\n", what, from + folder_len, to + folder_len);
  say(line);
}
#define REAL(type, name, ...) static type (*real)(__VA_ARGS__); if (!real) real = dlsym(RTLD_NEXT, name)
#define GUARD begin(); pthread_mutex_lock(&lock)
#define DONE pthread_mutex_unlock(&lock)

ssize_t write(int fd, const void *buf, size_t len) {
  begin();
  char path[PATH_MAX];
  if (fd == log_fd || fd == data_fd || fd < 3 || !path_of(fd, path)) return real_write(fd, buf, len);
  GUARD;
  off64_t at = lseek64(fd, 0, SEEK_CUR);
  int flags = fcntl(fd, F_GETFL);
  if (flags & O_APPEND) { struct stat64 s; fstat64(fd, &s); at = s.st_size; }
  ssize_t n = real_write(fd, buf, len);
  if (n > 0) say_write(path, at, buf, n);
  DONE;
  return n;
}
ssize_t pwrite64(int fd, const void *buf, size_t len, off64_t off) {
  begin();
  char path[PATH_MAX];
  if (!path_of(fd, path)) return real_pwrite(fd, buf, len, off);
  GUARD;
  ssize_t n = real_pwrite(fd, buf, len, off);
  if (n > 0) say_write(path, off, buf, n);
  DONE;
  return n;
}
ssize_t pwrite(int fd, const void *buf, size_t len, off_t off) { return pwrite64(fd, buf, len, off); }
ssize_t writev(int fd, const struct iovec *v, int n) {
  ssize_t sum = 0;
  for (int i = 0; i < n; i++) {
    ssize_t w = write(fd, v[i].iov_base, v[i].iov_len);
    if (w < 0) return sum ? sum : w;
    sum += w;
    if ((size_t)w < v[i].iov_len) break;
  }
  return sum;
}
static int sync_as(const char *name, int fd) {
  int (*real)(int) = dlsym(RTLD_NEXT, name);
  char path[PATH_MAX];
  begin();
  if (!path_of(fd, path)) return real(fd);
  GUARD;
  int r = real(fd);
  if (r == 0) say_one('S', path, 0);
  DONE;
  return r;
}
int fsync(int fd) { return sync_as("fsync", fd); }
int fdatasync(int fd) { return sync_as("fdatasync", fd); }
int ftruncate64(int fd, off64_t len) {
  REAL(int, "ftruncate64", int, off64_t);
  char path[PATH_MAX];
  begin();
  if (!path_of(fd, path)) return real(fd, len);
  GUARD;
  int r = real(fd, len);
  if (r == 0) say_one('T', path, len);
  DONE;
  return r;
}
int ftruncate(int fd, off_t len) { return ftruncate64(fd, len); }
static int open_as(const char *path, int flags, mode_t mode) {
  char full[PATH_MAX];
  begin();
  if (path[0] == '/') snprintf(full, sizeof full, "%s", path);
  else { if (!getcwd(full, sizeof full)) full[0] = 0; size_t n = strlen(full); snprintf(full + n, sizeof full - n, "/%s", path); }
  if (!ours(full) || !(flags & (O_CREAT | O_TRUNC))) return real_open(path, flags, mode);
  GUARD;
  struct stat64 before;
  int was = stat64(full, &before) == 0;
  int fd = real_open(path, flags, mode);
  if (fd >= 0 && !was) say_one('C', full, 0);
  else if (fd >= 0 && (flags & O_TRUNC) && before.st_size > 0) say_one('T', full, 0);
  DONE;
  return fd;
}
int open64(const char *path, int flags, ...) {
  va_list a; va_start(a, flags); mode_t mode = (flags & O_CREAT) ? va_arg(a, int) : 0; va_end(a);
  return open_as(path, flags, mode);
}
int open(const char *path, int flags, ...) {
  va_list a; va_start(a, flags); mode_t mode = (flags & O_CREAT) ? va_arg(a, int) : 0; va_end(a);
  return open_as(path, flags, mode);
}
int rename(const char *from, const char *to) {
  REAL(int, "rename", const char *, const char *);
  begin();
  if (!ours(from) && !ours(to)) return real(from, to);
  GUARD;
  int r = real(from, to);
  if (r == 0) say_two('R', from, to);
  DONE;
  return r;
}
int link(const char *from, const char *to) {
  REAL(int, "link", const char *, const char *);
  begin();
  if (!ours(from) && !ours(to)) return real(from, to);
  GUARD;
  int r = real(from, to);
  if (r == 0) say_two('L', from, to);
  DONE;
  return r;
}
int unlink(const char *path) {
  REAL(int, "unlink", const char *);
  begin();
  if (!ours(path)) return real(path);
  GUARD;
  int r = real(path);
  if (r == 0) say_one('U', path, 0);
  DONE;
  return r;
}
