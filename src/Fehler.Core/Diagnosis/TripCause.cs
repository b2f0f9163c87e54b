namespace Fehler.Core.Diagnosis;

/// <summary>What may have made a protective device trip or a fuse blow.</summary>
/// <param name="Unit">Device tag or conductor id.</param>
/// <param name="Title">What it is, in words.</param>
/// <param name="Probability">Beside the other causes and a trip by itself.</param>
public sealed record TripCause(string Unit, Wording Title, double Probability);
