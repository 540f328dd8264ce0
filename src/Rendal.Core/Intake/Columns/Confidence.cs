namespace Rendal.Core.Intake.Columns;

/// <summary>How certain it is what a column is.</summary>
public enum Confidence
{
    /// <summary>Heading, values and what fits together agree, or a person said so.</summary>
    Sure,

    /// <summary>It is the best of several; a person should look.</summary>
    Likely,

    /// <summary>Two columns are as good, and what is owed depends on which it is: a person has to say.</summary>
    Asked,
}
