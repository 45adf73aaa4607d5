/* Preloaded into the program by tests: makes the n-th call of one kind fail.
   FAULT_KIND  open, write, rename, sync, folder or memory
   FAULT_AT    which call of that kind fails, from 1; none where it is left out
   FAULT_COUNT file to which the number of calls of that kind is written at the end */
#define _GNU_SOURCE
#include <dlfcn.h>
#include <errno.h>
#include <fcntl.h>
#include <signal.h>
#include <stdarg.h>
#include <stddef.h>
#include <stdio.h>
#include <stdlib.h>
#include <string.h>
#include <sys/stat.h>
#include <sys/types.h>
#include <unistd.h>

extern void* __libc_malloc(size_t);
extern void* __libc_calloc(size_t, size_t);
extern void* __libc_realloc(void*, size_t);

static const char* kind;
static long fails_at, calls;
static int counting; /* from main on: what loads the program is not its work */

static int matters(const char* of) {
    return counting && kind && strcmp(kind, of) == 0;
}

static int fails(const char* of) {
    return matters(of) && __atomic_add_fetch(&calls, 1, __ATOMIC_RELAXED) == fails_at;
}

static void write_count(void) {
    counting = 0;
    const char* const path = getenv("FAULT_COUNT");
    FILE* const file = path ? fopen(path, "w") : NULL;
    if (!file) return;
    fprintf(file, "%ld\n", calls);
    fclose(file);
}

/* What the program starts, as gnuplot, is left alone. */
__attribute__((constructor)) static void begin(void) {
    if (strcmp(program_invocation_short_name, "panoplon") != 0) return;
    kind = getenv("FAULT_KIND");
    fails_at = getenv("FAULT_AT") ? atol(getenv("FAULT_AT")) : 0;
    atexit(write_count);
}

#define NEXT(name) ((__typeof__(&name))dlsym(RTLD_NEXT, #name))

/* The first thing that main does. */
sighandler_t signal(int number, sighandler_t handler) {
    counting = kind != NULL;
    return NEXT(signal)(number, handler);
}

int open(const char* path, int flags, ...) {
    va_list more;
    va_start(more, flags);
    const mode_t mode = (flags & (O_CREAT | O_TMPFILE)) ? va_arg(more, mode_t) : 0;
    va_end(more);
    if (fails("open")) return errno = EACCES, -1;
    return NEXT(open)(path, flags, mode);
}

int open64(const char* path, int flags, ...) {
    va_list more;
    va_start(more, flags);
    const mode_t mode = (flags & (O_CREAT | O_TMPFILE)) ? va_arg(more, mode_t) : 0;
    va_end(more);
    if (fails("open")) return errno = EACCES, -1;
    return NEXT(open64)(path, flags, mode);
}

FILE* fopen64(const char* path, const char* mode) {
    if (fails("open")) return errno = EACCES, (FILE*)NULL;
    return NEXT(fopen64)(path, mode);
}

ssize_t write(int file, const void* bytes, size_t size) {
    if (fails("write")) return errno = ENOSPC, -1;
    return NEXT(write)(file, bytes, size);
}

ssize_t pwrite64(int file, const void* bytes, size_t size, off64_t at) {
    if (fails("write")) return errno = ENOSPC, -1;
    return NEXT(pwrite64)(file, bytes, size, at);
}

ssize_t writev(int file, const struct iovec* parts, int count);
ssize_t writev(int file, const struct iovec* parts, int count) {
    if (fails("write")) return errno = ENOSPC, -1;
    return NEXT(writev)(file, parts, count);
}

int rename(const char* from, const char* to) {
    if (fails("rename")) return errno = EIO, -1;
    return NEXT(rename)(from, to);
}

int fsync(int file) {
    if (fails("sync")) return errno = EIO, -1;
    return NEXT(fsync)(file);
}

int fdatasync(int file) {
    if (fails("sync")) return errno = EIO, -1;
    return NEXT(fdatasync)(file);
}

int mkdir(const char* path, mode_t mode) {
    if (fails("folder")) return errno = ENOSPC, -1;
    return NEXT(mkdir)(path, mode);
}

void* malloc(size_t size) {
    if (fails("memory")) return errno = ENOMEM, (void*)NULL;
    return __libc_malloc(size);
}

void* calloc(size_t count, size_t size) {
    if (fails("memory")) return errno = ENOMEM, (void*)NULL;
    return __libc_calloc(count, size);
}

void* realloc(void* block, size_t size) {
    if (fails("memory")) return errno = ENOMEM, (void*)NULL;
    return __libc_realloc(block, size);
}
