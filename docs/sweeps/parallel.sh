#!/bin/sh
# A sweep over all cores of one machine with GNU parallel: docs/sweeps/parallel.sh RECIPE FOLDER PARTS
set -e
recipe=$1 folder=$2 parts=$3
seq "$parts" | parallel --halt now,fail=1 \
    "coulter render '$recipe' -o '$folder/' --format png --set q=0..5 --count 1000 --part {}/$parts > /dev/null"
coulter index "$folder" -o "$folder/index.csv"
