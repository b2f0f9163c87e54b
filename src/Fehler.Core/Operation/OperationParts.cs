using Fehler.Core.Circuits;

namespace Fehler.Core.Operation;

/// <summary>What operating it adds to a compiled circuit.</summary>
public static class OperationParts
{
    extension(CompiledCircuit compiled)
    {
        /// <summary>How it is isolated and what stays live.</summary>
        public Isolation Isolation => compiled.Part(static c => new Isolation(c));

        /// <summary>Every way in which it can be brought to work.</summary>
        public RunUp RunUp => compiled.Part(static c => new RunUp(c));

        /// <summary>The proof that the whole circuit works.</summary>
        public FunctionTest FunctionTest => compiled.Part(static c => new FunctionTest(c));
    }
}
