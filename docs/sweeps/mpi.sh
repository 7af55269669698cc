#!/bin/sh
# A sweep under an MPI launcher, a part for each rank: mpirun -n 8 docs/sweeps/mpi.sh RECIPE FOLDER
# Ranks are told as Open MPI, MPICH (and others that follow PMI) and Slurm's own launcher tell them; they do not talk to
# each other. Afterwards: coulter index FOLDER -o FOLDER/index.csv
rank=${OMPI_COMM_WORLD_RANK:-${PMI_RANK:-${SLURM_PROCID:?no launcher has said a rank}}}
size=${OMPI_COMM_WORLD_SIZE:-${PMI_SIZE:-$SLURM_NTASKS}}
exec coulter render "$1" -o "$2/" --format png --set q=0..5 --count 1000 --part "$((rank + 1))/$size"
