using Fehler.Core.Circuits;

namespace Fehler.Core.Procedures;

/// <summary>What the procedures add to a compiled circuit.</summary>
public static class ProcedureParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>What a good circuit shows, state by state.</summary>
        public ReadingSheet ReadingSheet => compiled.Part(static c => new ReadingSheet(c));

        /// <summary>The test of its components.</summary>
        public BenchCheck BenchCheck => compiled.Part(static c => new BenchCheck(c));

        /// <summary>Where three line values are taken as one set, and what they say.</summary>
        public ThreeLines ThreeLines => compiled.Part(static c => new ThreeLines(c));

        /// <summary>What can be reported of it.</summary>
        public Call Call => compiled.Part(static c => new Call(c));

        /// <summary>What cannot work and what may surprise.</summary>
        public DesignReview DesignReview => compiled.Part(static c => new DesignReview(c));

        /// <summary>What brings each fault to light.</summary>
        public WhereFaultsShow WhereFaultsShow => compiled.Part(static c => new WhereFaultsShow(c));

        /// <summary>How each fault is proved and repaired.</summary>
        public RepairGuides RepairGuides => compiled.Part(static c => new RepairGuides(c));
    }
}
