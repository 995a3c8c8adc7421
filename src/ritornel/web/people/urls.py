from django.contrib.auth.views import LogoutView
from django.urls import path
from django.views.generic import RedirectView

from ritornel.web.people import accepting, account, commenting, inviting, mail, sign_in

urlpatterns = [
    path("sign-in/", sign_in.SignIn.as_view(), name="sign-in"),
    path("sign-out/", LogoutView.as_view(), name="sign-out"),
    path("account/", account.account, name="account"),
    path("account/name", account.change_name, name="change-name"),
    path("account/password", account.change_password, name="change-password"),
    path("account/addresses", account.ask_for_proof, name="ask-for-proof"),
    path("account/addresses/<number:number>/forget", account.forget_address, name="forget-address"),
    path("account/proof/<signed:code>/", account.prove_address, name="prove-address"),
    path("invited/<code:code>/", accepting.invitation, name="invitation"),
    path("mail/", mail.mail_page, name="mail"),
    path("post/", RedirectView.as_view(pattern_name="mail", permanent=True)),
    path("shows/<id:show_id>/people", inviting.people, name="people"),
    path("shows/<id:show_id>/people/invite", inviting.invite, name="invite"),
    path("shows/<id:show_id>/people/<number:number>/withdraw", inviting.withdraw, name="withdraw"),
    path("shows/<id:show_id>/people/<number:number>/restore", inviting.restore, name="restore-invitation"),
    path("shows/<id:show_id>/people/<number:number>/change", inviting.change, name="change-role"),
    path("shows/<id:show_id>/comments", commenting.comments, name="comments"),
    path("shows/<id:show_id>/comments.json", commenting.state, name="comments-state"),
    path("shows/<id:show_id>/comments/say", commenting.say, name="say"),
    path("shows/<id:show_id>/comments/<number:number>/close", commenting.close, name="close-comment"),
]
