-- What a prepared parcel is made from, as hashes; null for one that was prepared before, which is prepared anew before it is released.
alter table parcel add seal jsonb;

-- The letterhead and the identity that a released parcel goes out with, whatever is changed afterwards.
alter table parcel add letterhead jsonb, add sent_as jsonb;
update parcel p set
    letterhead = jsonb_build_object('name', b.name, 'addressLines', b.address_lines, 'contactLines', b.contact_lines, 'paymentLines', b.payment_lines),
    sent_as = jsonb_build_object('name', s.name, 'address', s.address, 'replyTo', s.reply_to, 'copyToSelf', s.copy_to_self)
from round r join book b on b.id = r.book_id join sender s on s.book_id = r.book_id and s.id = r.sender_id
where r.book_id = p.book_id and r.id = p.round_id and p.card is not null;
alter table parcel add check ((card is null) = (letterhead is null) and (card is null) = (sent_as is null));
