#!/bin/sh
# Runs a command where nobody else's network namespaces, adapters and processes are: names that are taken on this
# machine are free in here, and whatever is left over in the end goes with it, also when the run is killed.
set -eu
if [ "${IPSONOMO_OWN_NETWORK:-}" != 1 ]; then
  export IPSONOMO_OWN_NETWORK=1
  exec setpriv --pdeathsig KILL unshare --mount --net --pid --fork --kill-child --mount-proc \
    --propagation private "$0" "$@"
fi
mkdir -p /run/netns
mount -t tmpfs tmpfs /run/netns
ip link set lo up
exec "$@"
