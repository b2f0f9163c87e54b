using Fehler.Core.Circuits;

namespace Fehler.Evaluate;

/// <summary>How sure the diagnosis was of what it named at the end, whether that was right, and how often such a fault happens.</summary>
internal sealed record Sureness(double Probability, bool Right, double Weight);

/// <summary>What came of the trials on one circuit.</summary>
internal sealed record FamilyReport
{
    public required string Circuit { get; init; }

    /// <summary>Faults in the catalogue, with their sizes; tried; of these with a symptom in operation.</summary>
    public required int Faults { get; init; }
    public required int Tried { get; init; }
    public required int Shown { get; init; }

    /// <summary>Of those with a symptom: right unit or indistinguishable group; proved by its own reading.</summary>
    public required int Right { get; init; }
    public required int Proved { get; init; }

    /// <summary>Without a symptom and right all the same.</summary>
    public required int SilentRight { get; init; }
    public required int[] Readings { get; init; }

    /// <summary>Of these the readings until one unit, or those that nothing tells apart, held 95 %; the rest are proof.</summary>
    public required int[] ReadingsToIsolate { get; init; }
    public required int[] Looks { get; init; }
    public required double[] Minutes { get; init; }

    /// <summary>Uncertainty about the unit that the symptom leaves, bits.</summary>
    public required double[] BitsAfterSymptom { get; init; }

    /// <summary>What naming the unit takes after the symptom, bits: no run of yes-or-no readings needs fewer on average.</summary>
    public required double[] BitsOfFault { get; init; }
    public required int[] WalkedReadings { get; init; }
    public required double[] WalkedMinutes { get; init; }
    public required int[] HalvedReadings { get; init; }
    public required int WithMistakes { get; init; }
    public required int RightWithMistakes { get; init; }
    public required int Doubles { get; init; }
    public required int BothFound { get; init; }
    public required Sureness[] Sure { get; init; }
    public required double[] ColdMilliseconds { get; init; }
    public required double[] WarmMilliseconds { get; init; }
    public required string[] Missed { get; init; }
}
