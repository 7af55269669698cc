#!/bin/sh
# A sweep as a Slurm job array, a part for each task: sbatch --array=1-8 docs/sweeps/slurm.sh RECIPE FOLDER
# Afterwards: coulter index FOLDER -o FOLDER/index.csv
#SBATCH --ntasks=1
#SBATCH --requeue
# What was made before a task was stopped is not made again when it is put back into the queue.
exec coulter render "$1" -o "$2/" --format png --set q=0..5 --count 1000 \
    --part "$SLURM_ARRAY_TASK_ID/$SLURM_ARRAY_TASK_COUNT"
