namespace Rendal.Trials.Ledgers;

/// <summary>
/// How accounting programs head the columns of open items, by language: drawn up from the trade, not from the lists of the program.
/// </summary>
public sealed record TradeHeadings(
    string Language,
    string Code,
    string Name,
    string Number,
    string Kind,
    string Date,
    string Due,
    string Currency,
    string Amount,
    string Open,
    string Debit,
    string Credit,
    string Kinds
)
{
    /// <summary>All languages. In each list the headings stand with bars between; kinds are invoice, credit note and payment.</summary>
    public static IReadOnlyList<TradeHeadings> All { get; } =
    [
        new(
            "en",
            "Acct ID|Cust. #|A/C Ref|Customer A/c|Client Ref.|Debtor ID|Buyer No.|Account Ref|CustomerID|cust_no|Sold-to|Payer No",
            "Purchaser|Buyer|Client|Debtor|Account holder|Cust. Nm|Customer / Company|Sold to name|Trading name|CustomerName|cust_name",
            "Trx|Doc #|Inv #|Txn No.|Voucher #|Bill no.|Invoice Ref|Trans. ID|DocNum|Document Ref.|invoice_id|Transaction #",
            "Doc. Typ.|Trx Type|Entry type|Class|Txn kind|Document class|Tran. Typ",
            "Posted|Raised|Issued|Inv. Dt|Doc. Dt.|Bill date|Posting Dt|Date issued|Trx Date|InvoiceDate|Date raised",
            "Due by|Payable|Matures|Due Dt|Payment deadline|Net due|DueDate|Date payable|Falls due|Pmt due date",
            "Cur.|Doc. currency|Trx ccy|Currency of invoice|Curncy",
            "Amt|Gross amt|Orig. amt|Inv. value|Invoice total amt|Doc. amount|Original value|Amount billed|Gross value",
            "Amt outstanding|O/S amt|Outst. bal.|Left to pay|Unpaid amt|Amount still due|Open bal.|Remaining amt|"
                + "Owing|Bal. outstanding|Amount owed",
            "Dr amt|Debit value|Debit (Dr)|Charged",
            "Cr amt|Credit value|Credit (Cr)|Credited",
            "Invoice|Credit|Payment;Inv|Crn|Rcpt;SI|SC|SR;INV|CN|PMT"
        ),
        new(
            "de",
            "Kunden-Nr.|Kd.-Nr.|Deb.-Nr.|Debitorenkto.|Kundenkonto|KdNr|Kundennr|Debitor Nr.|Konto-Nr. Kunde|Personenkonto",
            "Kundenbez.|Kundenname 1|Debitorname|Kunde Bezeichnung|Abnehmer|Name Kunde|Bezeichnung|Geschäftspartner|Firmenbezeichnung",
            "Beleg-Nr|Rechn.-Nr.|RgNr|Faktura-Nr.|Belegnr|Re.-Nr.|Rechnungs-Nr|Vorgangsnr.|Belegnummer 1|Fakt.nr.",
            "Beleg-Art|BA|Buchungsart|Belegtyp|Vorgangsart|Art des Belegs",
            "Belegdat.|Rechn.-Dat.|Re.-Datum|Fakturadatum|Buch.-Datum|Rg-Datum|Ausgestellt am|Belegtag|Datum Beleg",
            "Fällig bis|Nettofälligkeit|Fäll.-Datum|Zahlbar am|Zahlungstermin|Fälligk.|Nettofällig am|Fällig zum|Zahltermin",
            "WKZ|Währg.|Belegwährung|Währ.|Währung Beleg",
            "Rechn.-Betrag|Bruttobetr.|Belegbetrag|Ursprungsbetrag|Rg-Betrag|Betrag brutto|Urspr. Betrag",
            "Offener Btr.|Restbetr.|Offen (Betrag)|Off. Posten|Noch offen|Offener Saldo|OP-Betrag|Rest offen|Offener Restbetrag",
            "Soll-Betrag|Sollbetrag|Umsatz Soll",
            "Haben-Betrag|Habenbetrag|Umsatz Haben",
            "RE|GS|ZA;Rechnung|Gutschrift|Zahlung;RG|GU|ZE"
        ),
        new(
            "fr",
            "N° client|Code tiers|Réf. client|Cpte client|Compte tiers|N° de compte|Code cli.|Client n°|Numéro tiers",
            "Intitulé|Tiers|Raison soc.|Nom tiers|Libellé client|Dénomination|Société|Client (nom)|Acheteur",
            "N° pièce|N° fact.|Réf. pièce|N° document|Facture n°|Num. pièce|N° de facture|Réf. facture|Numéro fact.",
            "Type pièce|Nat.|Type doc.|Nature pièce|Journal|Type écriture",
            "Date fact.|Date d'émission|Émise le|Date compta.|Date doc.|Date pièce|Date de comptabilisation|Dt facture",
            "Date éch.|Éch.|À échéance du|Exigible le|Payable le|Date limite|Dt échéance|Échéance le",
            "Dev.|Devise pièce|Code devise|Monnaie doc.",
            "Mt TTC|Montant facture|Montant initial|Total TTC (EUR)|Mnt brut|Mt d'origine|Montant d'origine",
            "Reste dû|Solde dû|Mt restant dû|Restant à payer|Solde ouvert|Encours|Reste à régler|Montant ouvert|Impayé",
            "Mt débit|Montant débit|Débit (EUR)",
            "Mt crédit|Montant crédit|Crédit (EUR)",
            "FAC|AVO|RGL;Facture|Avoir|Règlement;FA|AV|RG"
        ),
        new(
            "es",
            "Nº cliente|Cód. cliente|Cta. cliente|Ref. cliente|Código cli.|N.º de cuenta|Cuenta cliente|Id. cliente",
            "Razón soc.|Denominación|Nombre fiscal|Cliente (nombre)|Nombre deudor|Deudor|Empresa|Comprador",
            "Nº factura|Núm. doc.|Nº doc.|Ref. factura|Nº fra.|Factura n.º|Nº documento|Núm. de factura|Doc. n.º",
            "Tipo doc.|Clase doc.|Tipo apunte|Clase de documento|Tipo mov.",
            "F. factura|Fec. emisión|Emitida el|Fecha emis.|Fecha doc.|Fecha asiento|Fecha de emisión|F. emisión",
            "F. vto.|Vto.|Vence el|Fecha vto.|Fec. vencimiento|Fecha límite de pago|Fecha venc.",
            "Mon.|Div.|Moneda doc.|Cód. divisa",
            "Imp. factura|Importe original|Total fra.|Imp. total|Importe bruto|Importe inicial",
            "Imp. pendiente|Saldo pte.|Resta por pagar|Pendiente de cobro|Importe abierto|Saldo vivo|Pdte. cobro|Importe adeudado",
            "Imp. debe|Debe (€)|Cargo",
            "Imp. haber|Haber (€)|Importe haber",
            "FRA|ABO|PAG;Factura|Abono|Pago;FA|AB|CO"
        ),
        new(
            "it",
            "Cod. cliente|N. cliente|Conto cliente|Rif. cliente|Codice cli.|Cliente n.|Cod. conto",
            "Rag. sociale|Denominaz.|Nominativo|Intestatario|Cliente (ragione sociale)|Nome azienda|Debitore",
            "N. fattura|Nr. doc.|N. documento|Rif. fattura|Num. doc.|Fattura n.|Nr. fatt.|Doc. n.",
            "Tipo doc.|Tipo mov.|Caus.|Tipo di documento|Causale",
            "Data fatt.|Dt. doc.|Data emiss.|Data reg.|Emessa il|Data di emissione|Data doc.",
            "Scad.|Dt. scad.|Data scad.|Scade il|Data di scadenza|Da pagare entro",
            "Val.|Div.|Valuta doc.|Cod. divisa",
            "Imp. fattura|Importo originario|Tot. documento|Imp. lordo|Importo iniziale",
            "Imp. residuo|Res. da incassare|Saldo aperto|Importo aperto|Insoluto|Residuo da pagare|Scoperto",
            "Imp. dare|Dare (€)|Importo dare",
            "Imp. avere|Avere (€)|Importo avere",
            "FT|NC|INC;Fattura|Nota credito|Pagamento"
        ),
        new(
            "nl",
            "Debiteurnr.|Klantnr.|Deb. nr.|Relatienr.|Klantcode|Rekeningnr. klant|Debiteurcode|Klant-ID",
            "Naam klant|Debiteurnaam|Bedrijf|Naam debiteur|Klant naam|Relatienaam|Afnemer",
            "Fact.nr.|Factuurnr.|Stuknr.|Docnr.|Boekstuknr.|Bonnr.|Factuur nr.|Documentnr.",
            "Srt|Soort stuk|Type boeking|Documentsoort|Type stuk",
            "Fact.datum|Factuurdat.|Boekdat.|Datum factuur|Stukdatum|Datum boeking",
            "Verv.datum|Vervalt op|Te betalen op|Uiterste betaaldatum|Vervaldat.|Uiterlijk betalen",
            "Val.|Munt|Valutacode",
            "Fact.bedrag|Oorspr. bedrag|Factuurtotaal|Brutobedrag|Totaal factuur",
            "Openst. bedrag|Nog open|Rest. bedrag|Openstaand saldo|Nog te betalen|Restbedrag|Open bedrag",
            "Debetbedrag|Debet (EUR)|Bedrag debet",
            "Creditbedrag|Credit (EUR)|Bedrag credit",
            "FCT|CN|BET;Factuur|Creditnota|Betaling"
        ),
        new(
            "pt",
            "N.º cliente|Cód. cliente|Conta cliente|Código cli.|Cliente n.º",
            "Designação|Nome cliente|Razão social|Entidade|Cliente (nome)|Devedor",
            "N.º fatura|N.º doc.|Nº documento|Ref. fatura|Fatura n.º|Núm. doc.",
            "Tipo doc.|Tipo de documento|Espécie",
            "Data emissão|Dt. doc.|Data doc.|Data fatura|Emitida em",
            "Vencim.|Dt. venc.|Data venc.|Vence em|Data de vencimento",
            "Moeda|Moeda doc.|Cód. moeda",
            "Valor fatura|Valor original|Total doc.|Valor bruto|Montante inicial",
            "Valor pendente|Saldo em aberto|Em dívida|Valor em aberto|Pendente",
            "Valor débito|Débito (€)|Montante débito",
            "Valor crédito|Crédito (€)|Montante crédito",
            "FT|NC|RC;Fatura|Nota de crédito|Recibo"
        ),
        new(
            "sv",
            "Kundnr|Kund-nr|Kundnummer|Kund-ID|Kundens nr",
            "Kundnamn|Namn kund|Benämning|Köpare|Företagsnamn",
            "Fakturanr|Fakt.nr|Ver.nr|Faktura nr|Dokumentnr",
            "Typ av dokument|Fakturatyp|Dok.typ|Slag",
            "Fakt.datum|Fakturadatum|Bokf.datum|Datum faktura",
            "Förfallodatum|Förf.datum|Förfaller|Betalas senast|Förfallodag",
            "Valuta|Val.|Valutakod",
            "Fakturabelopp|Belopp brutto|Urspr. belopp|Totalbelopp",
            "Kvar att betala|Restbelopp|Öppet belopp|Utestående|Obetalt belopp|Återstående",
            "Debetbelopp|Belopp debet|Debet (kr)",
            "Kreditbelopp|Belopp kredit|Kredit (kr)",
            "Faktura|Kreditfaktura|Betalning;FAK|KRE|BET"
        ),
        new(
            "da",
            "Kundenr.|Debitornr.|Kunde-nr.|Debitorkonto|Kunde-ID",
            "Kundenavn|Navn|Debitornavn|Firmanavn|Køber",
            "Fakturanr.|Bilagsnr.|Faktura nr.|Dok.nr.|Bilag",
            "Bilagstype|Dok.type|Type bilag",
            "Fakturadato|Bilagsdato|Bogf. dato|Dato faktura",
            "Forfaldsdato|Forf.dato|Forfalder|Betales senest|Forfald",
            "Valuta|Valutakode",
            "Fakturabeløb|Bruttobeløb|Opr. beløb|Beløb i alt",
            "Restbeløb|Åbent beløb|Udestående|Skyldigt beløb|Rest",
            "Debetbeløb|Beløb debet",
            "Kreditbeløb|Beløb kredit",
            "Faktura|Kreditnota|Betaling;FAK|KRE|BET"
        ),
        new(
            "no",
            "Kundenr|Kunde-nr.|Kundenummer|Kunde-ID",
            "Kundenavn|Kunde navn|Navn|Firmanavn|Kjøper",
            "Fakturanr|Bilagsnr|Faktura nr|Dok.nr",
            "Bilagstype|Dok.type|Type",
            "Fakturadato|Bilagsdato|Bokf.dato|Dato",
            "Forfallsdato|Forf.dato|Forfall|Forfaller",
            "Valuta|Valutakode",
            "Fakturabeløp|Bruttobeløp|Opprinnelig beløp|Beløp totalt",
            "Restbeløp|Åpent beløp|Utestående|Gjenstående|Ubetalt beløp",
            "Debetbeløp|Beløp debet",
            "Kreditbeløp|Beløp kredit",
            "Faktura|Kreditnota|Betaling"
        ),
        new(
            "fi",
            "Asiakasnro|Asiakasnumero|Asiakastunnus|Asiakas-ID",
            "Asiakkaan nimi|Asiakas|Nimi|Yrityksen nimi",
            "Laskunro|Laskun numero|Tositenro|Laskunumero",
            "Tositelaji|Laskutyyppi|Tyyppi",
            "Laskun päivä|Laskupvm|Päiväys|Laskun pvm",
            "Eräpäivä|Eräpvm|Erääntyy",
            "Valuutta|Val.",
            "Laskun summa|Bruttosumma|Laskusumma|Summa yhteensä",
            "Avoin summa|Avoinna|Jäljellä|Maksamatta|Avoin saldo",
            "Debet summa|Debet (€)",
            "Kredit summa|Kredit (€)",
            "Lasku|Hyvityslasku|Suoritus"
        ),
        new(
            "pl",
            "Nr klienta|Kod kontrahenta|Nr kontrahenta|Symbol klienta|Id klienta",
            "Nazwa kontrahenta|Nabywca|Nazwa klienta|Kontrahent|Nazwa firmy",
            "Nr faktury|Nr dokumentu|Numer faktury|Faktura nr|Nr dok.",
            "Typ dokumentu|Rodzaj dokumentu|Typ dok.",
            "Data wystawienia|Data faktury|Data dok.|Wystawiono",
            "Termin płatności|Termin zapłaty|Data wymagalności|Termin",
            "Waluta|Kod waluty",
            "Kwota brutto|Wartość faktury|Kwota faktury|Wartość brutto",
            "Pozostało do zapłaty|Kwota do zapłaty|Saldo|Pozostaje|Niezapłacone",
            "Kwota Wn|Wn|Strona Wn",
            "Kwota Ma|Ma|Strona Ma",
            "Faktura|Korekta|Wpłata;FV|KOR|WPL"
        ),
        new(
            "cs",
            "Č. odběratele|Kód odběratele|Číslo zákazníka|Kód zákazníka",
            "Název odběratele|Odběratel|Zákazník|Název firmy",
            "Č. faktury|Číslo dokladu|Číslo faktury|Faktura č.|Doklad",
            "Typ dokladu|Druh dokladu|Typ",
            "Datum vystavení|Vystaveno|Datum dokladu",
            "Datum splatnosti|Splatnost|Splatno dne",
            "Měna|Kód měny",
            "Částka celkem|Částka faktury|Celková částka",
            "Zbývá uhradit|Zbývá zaplatit|K úhradě zbývá|Dlužná částka|Neuhrazeno",
            "MD|Má dáti",
            "Dal|Částka Dal",
            "Faktura|Dobropis|Platba"
        ),
    ];

    /// <summary>Headings that stand whole in the lists of the program.</summary>
    public static IReadOnlyList<TradeHeadings> Listed { get; } =
    [
        new(
            "en",
            "Account|Customer code|Cust no|A/C|Client ID",
            "Customer name|Name|Company|Account name",
            "Invoice no|Document number|Number|Voucher",
            "Type|Doc type|Kind",
            "Invoice date|Date|Doc date",
            "Due date|Due|Payable by",
            "Currency|Ccy",
            "Amount|Original amount|Invoice total",
            "Outstanding|Balance due|Open amount|Amount due",
            "Debit",
            "Credit",
            "Invoice|Credit|Payment"
        ),
        new(
            "de",
            "Kundennummer|Debitor|Kd-Nr",
            "Kundenname|Firma",
            "Rechnungsnummer|Belegnr.|Beleg",
            "Belegart|Art",
            "Belegdatum|Rechnungsdatum|Datum",
            "Fällig am|Fälligkeit|Zahlbar bis",
            "Währung|Whg",
            "Betrag|Rechnungsbetrag",
            "Offen|Offener Betrag|Restbetrag",
            "Soll",
            "Haben",
            "Rechnung|Gutschrift|Zahlung"
        ),
        new(
            "fr",
            "Code client|Numéro client|Compte",
            "Nom du client|Raison sociale|Nom",
            "Numéro de facture|Pièce|Facture",
            "Nature|Type",
            "Date de facture|Date",
            "Échéance|Date d’échéance",
            "Devise",
            "Montant|Montant TTC",
            "Reste à payer|Solde|Restant dû",
            "Débit",
            "Crédit",
            "Facture|Avoir|Paiement"
        ),
    ];

    /// <summary>One of the headings of a list.</summary>
    public static string Pick(string list, Random random) => list.Split('|') is var all ? all[random.Next(all.Length)] : "";
}
