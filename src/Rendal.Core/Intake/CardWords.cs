using System.Collections.Frozen;

namespace Rendal.Core.Intake;

/// <summary>The headings by which the columns of a customer list are recognised, in the languages of the trade.</summary>
public static class CardWords
{
    private static readonly FrozenDictionary<string, CardField> ByWord = new (CardField Field, string Words)[]
    {
        (CardField.Contact, "contact|contact name|contact person|attention|attn|ansprechpartner|kontakt|contacto|contatto|contactpersoon"),
        (CardField.Title, "title|anrede|civilite|titre|tratamiento|titolo|aanhef"),
        (CardField.Salutation, "salutation|greeting|briefanrede|formule d appel|saludo|saluto|briefaanhef"),
        (CardField.CopyEmail, "cc|copy|copy to|e mail copy|kopie|kopie an|copie a|copia"),
        (CardField.BlindCopyEmail, "bcc|blind copy|blindkopie|copie cachee|copia oculta|copia nascosta"),
        (
            CardField.Address,
            "address|address 1|address 2|address 3|address line 1|address line 2|address line 3|street|strasse|straße|adresse|"
                + "rue|direccion|calle|indirizzo|via|adres|straat"
        ),
        (CardField.Town, "town|city|ort|stadt|ville|ciudad|poblacion|citta|plaats"),
        (CardField.Postcode, "postcode|post code|zip|zip code|postal code|plz|code postal|codigo postal|cap"),
        (CardField.Country, "country|land|pays|pais|paese"),
        (CardField.Delivery, "delivery|delivery method|sent by|send by|versand|versandart|envoi|envio|invio|verzending|verzendwijze"),
        (CardField.Language, "language|lang|sprache|langue|idioma|lingua|taal"),
        (
            CardField.Terms,
            "terms|terms days|payment terms|days|zahlungsziel|zahlungsziel tage|zahlungsbedingung|delai|delai de paiement|"
                + "plazo|termini|betalingstermijn"
        ),
        (
            CardField.HeadOffice,
            "head office|headquarters|group account|parent|parent account|parent code|bill to|zentrale|hauptkunde|konzern|"
                + "siege|central|sede centrale|hoofdkantoor"
        ),
        (CardField.Unit, "unit|business unit|division|bu|geschaftsbereich|niederlassung|unite|unidad|unita|bedrijfsonderdeel"),
        (
            CardField.MinimumBalance,
            "minimum balance|minimum|least balance|mindestsaldo|mindestbetrag|solde minimum|saldo minimo|minimumsaldo"
        ),
        (CardField.Hold, "on hold|hold|stop|blocked|gesperrt|bloque|bloqueado|bloccato|geblokkeerd"),
        (
            CardField.Notes,
            "notes|note|remarks|comment|comments|bemerkung|bemerkungen|notiz|notizen|remarque|remarques|notas|note interne|"
                + "opmerking|opmerkingen"
        ),
    }
        .SelectMany(list => list.Words.Split('|').Select(word => KeyValuePair.Create(HeadingWords.Plain(word), list.Field)))
        .DistinctBy(p => p.Key)
        .ToFrozenDictionary();

    /// <summary>
    /// The field that a heading usually stands for; null for a heading that is not known. <c>Customer</c> alone is the name.
    /// </summary>
    public static CardField? Of(string heading)
    {
        if (HeadingWords.IsCodeOrName(heading))
        {
            return CardField.Name;
        }

        // Words of the list come first: "address" alone is the postal one here.
        return ByWord.TryGetValue(HeadingWords.Plain(heading), out var field)
            ? field
            : HeadingWords.Of(heading)?.Meaning switch
            {
                ColumnMeaning.CustomerCode => CardField.Code,
                ColumnMeaning.CustomerName => CardField.Name,
                ColumnMeaning.Email => CardField.Email,
                _ => null,
            };
    }
}
