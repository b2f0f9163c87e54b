using BenchmarkDotNet.Columns;
using BenchmarkDotNet.Configs;
using BenchmarkDotNet.Jobs;
using BenchmarkDotNet.Running;
using BenchmarkDotNet.Toolchains.InProcess.Emit;

// In process: the machine that measures need not build another project.
BenchmarkSwitcher
    .FromAssembly(typeof(Program).Assembly)
    .Run(
        args,
        DefaultConfig
            .Instance.AddColumn(StatisticColumn.P95)
            .AddJob(Job.ShortRun.WithIterationCount(8).WithToolchain(InProcessEmitToolchain.Instance))
    );
