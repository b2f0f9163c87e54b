using Fehler.Core.Circuits;

namespace Fehler.Core.Jobs;

/// <summary>What work on a panel adds to a compiled circuit.</summary>
public static class JobParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>What is measured before it counts as dead.</summary>
        public AbsenceOfVoltage AbsenceOfVoltage => compiled.Part(static c => new AbsenceOfVoltage(c));
    }
}
