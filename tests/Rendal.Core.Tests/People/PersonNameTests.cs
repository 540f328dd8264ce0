using Rendal.Core.People;

namespace Rendal.Core.Tests.People;

public class PersonNameTests
{
    [Theory]
    [InlineData("the boss")]
    [InlineData("THE  BOSS ")]
    [InlineData("The\u200BBoss")]
    [InlineData("Тhе Воss")]
    [InlineData("Ｔｈｅ Ｂｏｓｓ")]
    [InlineData("The-Boss")]
    [InlineData("The B0ss")]
    [InlineData("Thé Boss")]
    [InlineData("\u202EThe Boss")]
    public void Names_that_a_person_could_take_for_each_other_are_one(string name) =>
        Assert.Equal(PersonName.Fold("The Boss"), PersonName.Fold(name));

    [Theory]
    [InlineData("marta", "marti")]
    [InlineData("Anna", "Hanna")]
    [InlineData("Jim", "Tim")]
    [InlineData("علي", "عمر")]
    public void Other_names_are_others(string one, string other) => Assert.NotEqual(PersonName.Fold(one), PersonName.Fold(other));

    [Theory]
    [InlineData("marta", null)]
    [InlineData("李小龙", null)]
    [InlineData(" ", "Say the name to sign in with.")]
    [InlineData("a\nb", "A name to sign in with has at most 100 characters, on one line.")]
    [InlineData("--", "A name to sign in with has letters.")]
    public void What_is_no_name_is_told(string name, string? problem) => Assert.Equal(problem, PersonName.Problem(name));
}
