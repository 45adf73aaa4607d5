/* Any command of the program, asked for from any language: JSON in, JSON out. */
#ifndef PANOPLON_RUN_H
#define PANOPLON_RUN_H

#include "panoplon/visible.h"

#ifdef __cplusplus
extern "C" {
#endif

/* Runs a command ("fight", "audit", …) on the armoury in a folder. `options` is a JSON object, or
 * null for none: "operands" has what follows the armoury on a command line, every other key is an
 * option without its dashes (a text, a number, a list of these, or true for a switch):
 *
 *   panoplon_run("marsh", "fight", "{\"operands\": [\"ringer_early\", \"ford\"], \"level\": 8}")
 *
 * Returns the JSON that the command prints with --json, with "exit" (0: all went well) and
 * "complaints" (what it says on standard error) added; where it prints none, these two alone. Text
 * is UTF-8. Null only where there is no memory. The caller gives it back to panoplon_free(). Calls
 * from several threads at once are safe. */
PANOPLON_VISIBLE char* panoplon_run(const char* armoury, const char* command, const char* options);

PANOPLON_VISIBLE void panoplon_free(char* text);

#ifdef __cplusplus
}
#endif

#endif
